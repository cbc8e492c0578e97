/* Runs every [data-slideshow]; slideshow(element) begins a later one and gives { go(i), at() }.
What it does stands in CSS, per width: --at-a-time: 1; --change: slide | fade | zoom |
none; --change-time: 0.4s; --by-itself: yes; --pause: 5s; --loop: yes; --swipe: yes. */
(() => {
	const begin = (box) => {
		if (box.slideshow) return box.slideshow;
		const view = box.ownerDocument.defaultView;
		const row = box.querySelector("[data-slides]");
		const slides = [...row.children];
		const dots = box.querySelectorAll("[data-to]");
		const button = box.querySelector("[data-moves]");
		const calm = view.matchMedia("(prefers-reduced-motion: reduce)");
		const style = (of) => view.getComputedStyle(of);
		const said = (name) => style(box).getPropertyValue(`--${name}`).trim();
		const yes = (name) => said(name) === "yes";
		const ms = (name) => parseFloat(said(name)) * 1000;
		const some = () => +said("at-a-time") || 1;
		const stacked = () => /fade|zoom/.test(said("change"));
		const shown = () => slides.filter((s) => style(s).display !== "none");
		const left = (s) => s.offsetLeft - shown()[0].offsetLeft;
		const is = {}; // held, focused, away
		let now = 0; // the first slide in view
		let wish, timer, frame, down; // wish: what the button asked for

		const moves = () => {
			const on = yes("loop") || now + some() < shown().length;
			if (!on || !box.isConnected || is.held || is.away) return false;
			return wish ?? (yes("by-itself") && !calm.matches && !is.focused);
		};

		const tell = () => {
			const all = shown(), n = some();
			slides.forEach((s, k) => {
				const i = all.indexOf(s), dot = dots[k];
				const seen = i >= now && i < now + n;
				s.toggleAttribute("data-now", seen);
				s.inert = !seen;
				if (dot) dot.hidden = i < 0 || i % n;
				if (dot) dot.ariaCurrent = seen;
				// what comes next is fetched in time
				if (i < 0 || is.away || (i - now + all.length) % all.length >= 2 * n) return;
				s.toggleAttribute("data-near", true);
				for (const img of s.querySelectorAll("img")) img.loading = "eager";
			});
			const rests = !(wish ?? (yes("by-itself") && !calm.matches));
			box.style.setProperty("--change-time", calm.matches ? "0s" : "");
			box.toggleAttribute("data-rests", rests);
			if (button) button.ariaLabel = button.dataset[rests ? "start" : "stop"];
			row.ariaLive = moves() ? "off" : "polite";
		};

		// makes up for a late timer, but slides must not race after a sleep
		const wait = (late = 0) => {
			tell();
			clearTimeout(timer);
			if (!moves()) return;
			const time = ms("pause") + ms("change-time") - Math.min(late, 50);
			const due = performance.now() + time;
			timer = setTimeout(() => moves() && go(now + some(), performance.now() - due), time);
		};

		// over an end the first stand behind the last meanwhile
		const scroll = (over, time) => {
			const all = shown(), n = some();
			const end = left(all[Math.min(now, all.length - n)] ?? all[0]);
			const whole = all[1] ? left(all[1]) * all.length : 0;
			const from = over < 0 ? whole : row.scrollLeft;
			const by = (over > 0 ? whole : end) - from;
			const start = performance.now();
			if (over) for (const s of all.slice(0, n)) s.style.transform = `translateX(${whole}px)`;
			row.style.scrollSnapType = "none";
			cancelAnimationFrame(frame);
			const draw = (t) => {
				const part = time ? Math.min(1, (t - start) / time) : 1;
				row.scrollLeft = from + by * part * part * (3 - 2 * part);
				frame = part < 1 && requestAnimationFrame(draw);
				if (frame) return;
				for (const s of slides) s.style.transform = "";
				row.scrollLeft = end;
				row.style.scrollSnapType = "";
			};
			draw(start);
		};

		const go = (i, late) => {
			const n = some();
			const last = Math.ceil(shown().length / n) - 1;
			const over = i < 0 ? -1 : +(i >= last * n + n);
			if (last < 0 || (over && !yes("loop"))) return;
			now = n * (over < 0 ? last : over ? 0 : Math.floor(i / n));
			wait(late);
			if (!stacked()) scroll(over, ms("change-time"));
			box.dispatchEvent(new CustomEvent("slide", { detail: now }));
		};

		const hear = (of, names, f) => names.split(" ").map((name) => of.addEventListener(name, f));
		const set = (what) => wait(void Object.assign(is, what));
		hear(box, "click", (e) => {
			const b = e.target.closest("button");
			if (!b) return;
			if (b === button) wait(void (wish = box.hasAttribute("data-rests")));
			if (b.dataset.by) go(now + b.dataset.by * some());
			if (b.dataset.to) go(shown().indexOf(slides[b.dataset.to]));
		});
		hear(box, "keydown", (e) => {
			const by = some() * (style(row).direction === "rtl" ? -1 : 1);
			const to = { ArrowLeft: now - by, ArrowRight: now + by, Home: 0, End: shown().length - 1 }[e.key];
			if (to === undefined || e.altKey || e.ctrlKey || e.metaKey) return;
			e.preventDefault();
			go(to);
		});
		hear(box, "pointerenter pointerleave", (e) => {
			if (e.pointerType === "mouse") set({ held: e.type === "pointerenter" });
		});
		hear(box, "focusin focusout", () => setTimeout(() => set({ focused: box.matches(":focus-within") })));
		// a row is swiped by scrolling, a stack by a stroke
		hear(row, "pointerdown pointerup", (e) => {
			const x = e.clientX - down;
			down = e.type === "pointerdown" ? e.clientX : undefined;
			if (stacked() && yes("swipe") && Math.abs(x) > 40) go(now - Math.sign(x));
		});
		hear(row, "scrollend", () => {
			if (frame || stacked()) return;
			const all = shown(), off = all.map((s) => Math.abs(left(s) - row.scrollLeft));
			const i = off.indexOf(Math.min(...off));
			if (i !== Math.min(now, all.length - some())) wait(void (now = i));
		});
		hear(view, "resize", () => {
			wait();
			if (!stacked()) scroll(0, 0);
		});
		hear(calm, "change", () => wait());
		new IntersectionObserver(([e]) => set({ away: !e.isIntersecting })).observe(box);
		box.toggleAttribute("data-on", true);
		wait();
		return (box.slideshow = { go, at: () => now });
	};
	window.slideshow = begin;
	document.querySelectorAll("[data-slideshow]").forEach(begin);
})();
