import { expect, it } from "@jest/globals";
import { Person } from "./browser";

it("what moves away between press and release is pressed again, and once", async () => {
  const person = await Person.sitDown();
  try {
    const page = `<html data-listens><p id="above"></p><button onpointerdown="above.style.height = '200px'"
      onclick="this.innerText = Number(this.innerText) + 1">0</button></html>`;
    await person.driver.get(`data:text/html,${encodeURIComponent(page)}`);
    await person.press("//button");
    await person.see("//button[.='1']");
    await person.press("//button");
    expect(await person.driver.executeScript("return document.querySelector('button').innerText")).toBe("2");
  } finally {
    await person.leave();
  }
}, 60_000);
