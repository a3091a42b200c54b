import { kits } from "./bench-kits";
await kits((t) => console.log(t));
