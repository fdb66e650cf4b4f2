/**
 * The tour's words beside the place they are about, on addresses that end in
 * `tour=1` to `tour=4`; the words themselves stand on the tour's page.
 */

export async function showTour() {
  const asked = Number(new URLSearchParams(window.location.search).get("tour"));
  if (!Number.isInteger(asked) || asked < 1) return;
  try {
    const answer = await fetch("/tour");
    if (!answer.ok) return;
    const page = new DOMParser().parseFromString(
      await answer.text(),
      "text/html",
    );
    const steps = [...page.querySelectorAll(".tour-steps li")];
    const step = steps[asked - 1];
    if (step) tell(step, steps[asked], asked, steps.length);
  } catch {
    // Without its words the place is still the place.
  }
}

/** Puts a step's words into a corner and marks what they are about. */
function tell(step, next, number, all) {
  const box = document.createElement("aside");
  box.className = "tour";
  box.setAttribute("aria-label", `Tour, ${number} of ${all}`);
  const title = document.createElement("h2");
  title.textContent = step.querySelector("h2").textContent;
  const words = document.createElement("p");
  words.textContent = step.querySelector("p").textContent;
  const ways = document.createElement("p");
  ways.className = "tour-ways";
  if (next) {
    const on = document.createElement("a");
    on.href = next.querySelector("a").getAttribute("href");
    on.textContent = `Next, ${number + 1} of ${all}`;
    ways.append(on);
  }
  const leave = document.createElement("button");
  leave.type = "button";
  leave.textContent = next ? "Leave the tour" : "Done";
  ways.append(leave);
  box.append(title, words, ways);
  document.body.append(box);
  const about = document.querySelector(step.dataset.look);
  about?.classList.add("tour-about");
  about?.scrollIntoView({ block: "nearest" });
  const end = () => {
    box.remove();
    about?.classList.remove("tour-about");
    const address = new URL(window.location.href);
    address.searchParams.delete("tour");
    history.replaceState(null, "", address);
  };
  leave.addEventListener("click", end);
  document.addEventListener("keydown", (event) => {
    if (event.key === "Escape") end();
  });
}
