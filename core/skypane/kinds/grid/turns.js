/* Runs every [data-turns]: buttons that turn the row before them page by page, and say which one shows.
turning(element) begins a later one. What a page is follows from how wide the row is. */
(() => {
	const begin = (box) => {
		if (box.turns) return;
		box.turns = true;
		const view = box.ownerDocument.defaultView;
		const row = box.previousElementSibling;
		const said = box.querySelector("output");
		const calm = view.matchMedia("(prefers-reduced-motion: reduce)");
		const style = () => view.getComputedStyle(row);
		const px = (name) => parseFloat(style()[name]) || 0;
		const step = () => row.clientWidth - px("paddingLeft") - px("paddingRight") + px("columnGap");
		const rest = () => row.scrollWidth - row.clientWidth;
		const pages = () => Math.max(1, Math.ceil(rest() / step() - 0.02) + 1);
		const now = () => {
			const at = Math.abs(row.scrollLeft);
			return at > rest() - 2 ? pages() - 1 : Math.round(at / step());
		};
		const tell = () => {
			const text = said.dataset.place.replace("{n}", now() + 1).replace("{all}", pages());
			if (said.textContent !== text) said.textContent = text;
			for (const b of box.querySelectorAll("[data-by]"))
				b.ariaDisabled = !(now() + +b.dataset.by in Array(pages()).fill());
		};
		box.addEventListener("click", (e) => {
			const by = e.target.closest("[data-by]")?.dataset.by;
			const to = now() + +by;
			if (!by || to < 0 || to >= pages()) return;
			const way = style().direction === "rtl" ? -1 : 1;
			row.scrollTo({ left: way * Math.min(to * step(), rest()), behavior: calm.matches ? "auto" : "smooth" });
		});
		row.addEventListener("scroll", tell, { passive: true });
		new view.ResizeObserver(tell).observe(row);
		box.toggleAttribute("data-on", true);
		tell();
	};
	window.turning = begin;
	document.querySelectorAll("[data-turns]").forEach(begin);
})();
