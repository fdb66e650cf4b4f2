/**
 * Keeps a form while somebody fills it in: every change is sent at once, and
 * what came of it is said. What was understood stands beneath its field, the
 * drawing follows; nothing typed is touched.
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
  const leaving = new AbortController();
  /** Counts changes: only the last one's outcome is said. */
  let count = 0;
  const send = async () => {
    const mine = ++count;
    await sending;
    if (mine !== count) return;
    const body = new URLSearchParams();
    for (const [name, value] of new FormData(form))
      body.append(name, String(value));
    const sent = new Map(body);
    // What is typed on the way is kept as begun, not as measured.
    body.set("action", "draft");
    say("Saving …");
    sending = fetch(address, { method: "POST", body, signal: leaving.signal })
      .then(async (response) => {
        const html = await response.text();
        const page = new DOMParser().parseFromString(html, "text/html");
        // Also where more was typed meanwhile: what is sent next goes by it.
        if (response.ok) settle(form, page, sent);
        if (mine !== count) return;
        const trouble = page.querySelector("[data-trouble]");
        if (response.ok) say("Saved.");
        else if (response.status === 422)
          say(
            trouble?.textContent ?? "Not kept yet: a field is not understood.",
          );
        else return say("Not saved: the server refused it.");
        echo(form, page, response.ok);
        if (response.ok) follow(root, page);
      })
      .catch(() => {
        if (!leaving.signal.aborted)
          say("Not saved: the server does not answer.");
      });
    await sending;
  };
  form.addEventListener("change", send);
  // Its own button sends all of it.
  form.addEventListener("submit", () => leaving.abort());
}

/** What was understood of each field, beneath it; or why it was not. */
function echo(form, page, kept) {
  for (const field of form.querySelectorAll("input[type=text][id]")) {
    const there = page.getElementById(field.id);
    const mistake = page.getElementById(`${field.id}-said`);
    field.parentElement.querySelector(".echo")?.remove();
    const text = mistake?.textContent ?? (kept ? (there?.value ?? "") : "");
    if (!text || text === field.value.trim()) continue;
    const said = document.createElement("p");
    said.className = mistake ? "echo mistake" : "echo";
    said.textContent = mistake ? text : `= ${text}`;
    field.parentElement.append(said);
  }
}

/**
 * What the form showed, after what was sent is kept: fields that were typed in
 * show what was understood; ones that were not, what others made of them.
 */
function settle(form, page, sent) {
  const own = form.elements.namedItem("shown");
  const theirs = page.querySelector("form[data-autosave] [name=shown]");
  if (!own || !theirs) return;
  const was = JSON.parse(own.value);
  const now = JSON.parse(theirs.value);
  const names = new Set([...Object.keys(was), ...Object.keys(now)]);
  for (const name of names) {
    const typed = (sent.get(name) ?? "") !== (was[name] ?? "");
    const field = form.elements.namedItem(name);
    const plain =
      field instanceof HTMLInputElement || field instanceof HTMLSelectElement;
    if (!typed && plain && field.value === (was[name] ?? ""))
      field.value = now[name] ?? "";
    else if (!typed) continue;
    if (now[name] === undefined) delete was[name];
    else was[name] = now[name];
  }
  own.value = JSON.stringify(was);
}

/** The drawing and the list as they are now. */
function follow(root, page) {
  for (const name of [".walk-plan", ".walk-stops"]) {
    const [old, fresh] = [root.querySelector(name), page.querySelector(name)];
    if (!old || !fresh || old.dataset.held) continue;
    const grips = old.querySelectorAll(".grip");
    old.replaceChildren(...fresh.children, ...grips);
    old.dispatchEvent(new Event("redrawn"));
  }
}
