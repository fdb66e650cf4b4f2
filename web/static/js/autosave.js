/**
 * Keeps a form while somebody fills it in: every change is sent at once, and
 * what came of it is said. A field that is not understood is said so by its
 * own button's answer; nothing typed is touched.
 */

/** @param {Document} root */
export function formsThatKeep(root) {
  for (const form of root.querySelectorAll("form[data-autosave]"))
    if (form instanceof HTMLFormElement) keep(root, form);
}

function keep(root, form) {
  const saved = root.querySelector("[data-saved]");
  const say = (text) => {
    if (saved) saved.textContent = text;
  };
  // Its buttons are called “action” and stand in the property's way.
  const address = form.getAttribute("action");
  let sending;
  /** Counts changes: only the last one's outcome is said. */
  let count = 0;
  const send = async () => {
    const mine = ++count;
    await sending;
    if (mine !== count) return;
    const body = new URLSearchParams();
    for (const [name, value] of new FormData(form))
      body.append(name, String(value));
    // What is typed on the way is kept as begun, not as measured.
    body.set("action", "draft");
    say("Saving …");
    sending = fetch(address, { method: "POST", body })
      .then((response) => {
        if (mine !== count) return;
        if (response.status === 422)
          say("Not kept yet: a field is not understood.");
        else if (response.ok) say("Saved.");
        else say("Not saved: the server refused it.");
      })
      .catch(() => say("Not saved: the server does not answer."));
    await sending;
  };
  form.addEventListener("change", send);
}
