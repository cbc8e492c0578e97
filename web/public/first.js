// Asks for what the screen shows first, before the application itself has been read.
window.firstAnswers = fetch(document.currentScript.dataset.address, { credentials: "same-origin" });
window.firstAnswers.catch(() => undefined);
