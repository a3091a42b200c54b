import { wholeJourneys } from "./whole-journey";

wholeJourneys([
  {
    told: "a wet dual-clutch by keyboard, on a tablet",
    by: "keyboard",
    unit: "corrie-godwit",
    name: "Corrie Godwit",
    small: true,
  },
  {
    told: "a dry dual-clutch by touch, on a tablet",
    by: "touch",
    unit: "corrie-plover",
    name: "Corrie Plover",
    small: true,
  },
]);
