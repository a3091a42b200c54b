export { learn, learnedOf, type KeptPicture, type Learned, type Taught } from "./learn";
export { proposedIn, takeIn, type Proposal, type Proposed } from "./next-time";
