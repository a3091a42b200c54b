import { wholeJourneys } from "./whole-journey";

wholeJourneys([
  {
    told: "an automatic by keyboard, the network gone in the middle",
    by: "keyboard",
    unit: "marram-dunlin",
    name: "Marram Dunlin",
    cut: true,
  },
  {
    told: "another automatic by touch, measured in inches",
    by: "touch",
    unit: "marram-whimbrel",
    name: "Marram Whimbrel",
  },
]);
