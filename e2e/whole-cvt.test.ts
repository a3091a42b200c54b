import { wholeJourneys } from "./whole-journey";

wholeJourneys([
  {
    told: "a CVT by touch, the network gone in the middle",
    by: "touch",
    unit: "selwyn-turnstone",
    name: "Selwyn Turnstone",
    cut: true,
  },
]);
