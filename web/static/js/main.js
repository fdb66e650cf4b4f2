/**
 * Starts the page's helpers. Everything works without them: the brief is a
 * form, parts are <details>, hulls are links.
 */
import { keepInStep } from "./answer.js";
import { toldLineByLine } from "./again.js";
import { formsThatKeep } from "./autosave.js";
import { outingsThatWait } from "./entry.js";
import { searchAsTyped, stepsThatStay } from "./live.js";
import { linkMap } from "./map.js";
import { screenThatFollows } from "./screen.js";
import { partsThatClose } from "./parts.js";
import { passwordsToLookAt } from "./peek.js";
import { newPasswords } from "./strength.js";
import { marksInPhoto } from "./photo.js";
import { planThatMoves } from "./plan.js";
import { walkRows } from "./rows.js";
import { workThatTakesTime } from "./slow.js";
import { boardThatMoves } from "./stow.js";
import { answersByFigure } from "./talk.js";
import { listsThatKeep } from "./ticks.js";
import { showTour } from "./tour.js";
import { pageThatComes } from "./waits.js";
import { undoByKeys } from "./undo.js";

const answer = document.getElementById("answer");
if (answer) {
  keepInStep(answer);
  walkRows(answer);
  linkMap(answer);
}
partsThatClose(document);
planThatMoves(document);
marksInPhoto(document);
formsThatKeep(document);
boardThatMoves(document);
answersByFigure(document);
workThatTakesTime(document);
listsThatKeep(document);
outingsThatWait(document);
showTour();
toldLineByLine(document);
searchAsTyped(document);
stepsThatStay(document);
undoByKeys(document);
screenThatFollows(document);
passwordsToLookAt(document);
newPasswords(document);
pageThatComes(document);
