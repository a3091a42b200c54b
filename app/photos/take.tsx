import { Camera, ImagePlus } from "lucide-react";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { TOOL } from "~/frame/bar";
import { useSayOf } from "~/say/use-say";

const MOST = 15_000_000;

/** Why a file cannot be taken as a picture; null when it can. Looked at here, so that a wrong file is told at once, server or not. */
export async function refusal(file: File): Promise<string | null> {
  if (file.size > MOST) return "is larger than 15 MB; take it with a lower resolution";
  if (file.type === "image/svg+xml") return "is a drawing, not a photo; use a JPEG, PNG or WebP";
  try {
    (await createImageBitmap(file)).close();
    return null;
  } catch {
    return "is not a picture that can be read; use a JPEG, PNG or WebP";
  }
}

/** Takes pictures from camera or files at any point of a job. They are kept in the browser first, like every fact. */
export function TakePhoto({
  of: about,
  view: { number, closed },
  small = false,
  words,
}: {
  of: string;
  view: { number: number; closed: boolean };
  small?: boolean;
  /** What its one button says; without it camera and files have one each. */
  words?: string;
}) {
  const say = useSayOf(number);
  const [problems, setProblems] = useState<string[]>([]);
  if (closed) return null;
  const take = async (files: FileList | null): Promise<void> => {
    const wrong: string[] = [];
    for (const file of files ?? []) {
      const why = await refusal(file);
      if (why) wrong.push(`${file.name} ${why}.`);
      else say({ kind: "photo", photo: newId(), caption: "", of: about }, { picture: file });
    }
    setProblems(wrong);
  };
  const input = (camera: boolean) => (
    <input
      type="file"
      accept="image/*"
      multiple={!camera}
      capture={camera ? "environment" : undefined}
      className="sr-only"
      data-photo-input={camera ? "camera" : "files"}
      onChange={(event) => {
        const { files } = event.currentTarget;
        void take(files).then(() => (event.target.value = ""));
      }}
    />
  );
  return (
    <>
      <label
        className={`${small ? TOOL : "btn touch"} has-focus-visible:outline-primary has-focus-visible:outline-3`}
      >
        <Camera size={20} aria-hidden="true" />{" "}
        {small ? <span className="max-[1360px]:sr-only">Photo</span> : (words ?? "Take a photo")}
        {input(true)}
      </label>
      {!small && words === undefined && (
        <label
          className={`${small ? TOOL : "btn touch"} has-focus-visible:outline-primary has-focus-visible:outline-3`}
        >
          <ImagePlus size={20} aria-hidden="true" /> From files
          {input(false)}
        </label>
      )}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="text-error basis-full font-semibold">
          {problem}
        </p>
      ))}
    </>
  );
}
