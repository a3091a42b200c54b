import { describe, expect, it, test } from "@jest/globals";
import sharp from "sharp";
import { IN_PASSES, MOST_PICTURE_BYTES, NO_PICTURE, scaled, TOO_LARGE } from "./picture";

const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#885522" } });

describe("a picture taken in", () => {
  it("loses the place it was taken at and everything else written in it", async () => {
    const jpeg = await plain(400, 300)
      .withExif({
        IFD0: { Make: "made up", Artist: "somebody" },
        IFD3: { GPSLatitude: "53/1 10/1 0/1", GPSLatitudeRef: "N", GPSLongitude: "8/1 0/1 0/1" },
      })
      .jpeg()
      .toBuffer();
    expect((await sharp(jpeg).metadata()).exif).toBeDefined();
    const result = await scaled(jpeg);
    if (!result.ok) throw new Error(result.problem);
    for (const bytes of [result.large, result.small]) {
      const { exif, iptc, xmp, format } = await sharp(bytes).metadata();
      expect([exif, iptc, xmp, format]).toEqual([undefined, undefined, undefined, "jpeg"]);
      expect(bytes.includes("GPS")).toBe(false);
      expect(bytes.includes("somebody")).toBe(false);
    }
  });

  it("that comes in passes is read up to a size, and refused in words beyond it", async () => {
    const inPasses = (width: number, height: number) =>
      plain(width, height).jpeg({ progressive: true }).toBuffer();
    expect(await scaled(await inPasses(3000, 2000))).toMatchObject({ ok: true });
    expect(await scaled(await inPasses(8000, 6000))).toEqual({ ok: false, problem: IN_PASSES });
    expect(await scaled(await plain(8000, 6000).jpeg().toBuffer())).toMatchObject({ ok: true });
  });

  it("is turned upright as the camera said, before that is forgotten", async () => {
    const result = await scaled(await plain(400, 300).withMetadata({ orientation: 6 }).jpeg().toBuffer());
    expect(result).toMatchObject({ ok: true, width: 300, height: 400 });
  });

  test.each<[number, number, number, number]>([
    [4000, 3000, 2000, 1500],
    [1000, 3000, 667, 2000],
    [640, 480, 640, 480],
    [1, 1, 1, 1],
  ])("of %i × %i becomes %i × %i, never larger than it was", async (width, height, wide, high) => {
    const result = await scaled(await plain(width, height).png().toBuffer());
    if (!result.ok) throw new Error(result.problem);
    expect([result.width, result.height]).toEqual([wide, high]);
    const small = await sharp(result.small).metadata();
    expect(Math.max(small.width, small.height)).toBeLessThanOrEqual(320);
  });

  test.each(["png", "webp", "gif", "tiff", "avif"] as const)("may be a %s", async (format) => {
    expect(await scaled(await plain(40, 30).toFormat(format).toBuffer())).toMatchObject({ ok: true });
  });

  test.each<[string, () => Promise<Buffer> | Buffer]>([
    ["a text", () => Buffer.from("this is no picture at all")],
    ["nothing", () => Buffer.alloc(0)],
    [
      "a drawing with a script in it",
      () =>
        Buffer.from("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><script>1</script></svg>"),
    ],
    ["a PDF", () => Buffer.from("%PDF-1.4\n1 0 obj<<>>endobj")],
    ["half a JPEG", async () => (await plain(900, 900).jpeg().toBuffer()).subarray(0, 900)],
  ])("is refused when it is %s", async (_what, bytes) => {
    expect(await scaled(await bytes())).toEqual({ ok: false, problem: NO_PICTURE });
  });

  it("is refused when it is larger than 15 MB", async () => {
    expect(await scaled(Buffer.alloc(MOST_PICTURE_BYTES + 1))).toEqual({ ok: false, problem: TOO_LARGE });
  });
});
