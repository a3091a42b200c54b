export { learn, learnedOf, type Learned, type Taught } from "./learn";
