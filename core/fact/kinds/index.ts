import * as bench from "./bench";
import * as before from "./before";
import * as build from "./build";
import * as booking from "./booking";
import * as inspected from "./inspected";
import * as measured from "./measured";
import * as proven from "./prove";
import * as pictures from "./pictures";
import * as selected from "./selected";
import * as recorded from "./recorded";
import * as sources from "./sources";
import * as made from "./stronger";
import * as taught from "./taught";
import * as told from "./told";
import * as ways from "./ways";

/** Every kind of fact there is, by its name, in the order of the work. */
export const KINDS = {
  booking: booking.booking,
  configuration: booking.configuration,
  scope: booking.scope,
  holder: booking.holder,
  "earlier-visit": booking.earlierVisit,
  comeback: booking.comeback,
  answer: told.answer,
  code: told.code,
  speeds: told.speeds,
  conclusion: told.conclusion,
  fluid: before.fluid,
  debris: before.debris,
  "read-out": before.readOut,
  photo: pictures.photo,
  "photo-mark": pictures.photoMark,
  place: bench.place,
  step: bench.step,
  out: bench.boltsOut,
  lies: bench.laidDown,
  sat: bench.howItSat,
  noted: bench.noted,
  count: bench.count,
  balls: bench.balls,
  wrong: bench.wrong,
  "came-off": recorded.cameOff,
  "next-time": taught.nextTime,
  cleaning: bench.cleaning,
  good: inspected.good,
  finding: inspected.finding,
  "part-question": inspected.partQuestion,
  disposition: inspected.disposition,
  "weak-point": inspected.weakPoint,
  renewed: inspected.renewed,
  cause: inspected.cause,
  "part-source": sources.partSource,
  "old-part": sources.oldPart,
  stronger: made.stronger,
  offer: ways.offer,
  "way-on": ways.wayOn,
  quoted: ways.quoted,
  reading: measured.reading,
  "leave-out": measured.leaveOut,
  figure: measured.figure,
  conditions: measured.conditions,
  fitting: selected.fitting,
  unseen: selected.unseen,
  "taken-out": selected.takenOut,
  choice: selected.choice,
  explained: selected.explained,
  waiver: selected.waiver,
  check: build.check,
  plates: build.plates,
  laid: build.laid,
  timer: build.timer,
  air: build.air,
  tightened: build.tightened,
  deviation: build.deviation,
  procedure: proven.procedure,
  filled: proven.filled,
  proof: proven.proof,
  "codes-read": proven.codesRead,
  relearned: proven.relearned,
  driven: proven.driven,
  "drive-speeds": proven.driveSpeeds,
  drive: proven.drove,
  "sign-off": selected.signOff,
  closed: booking.closed,
} as const;
