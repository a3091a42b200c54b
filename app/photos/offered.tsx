import { usePictures } from "./source";
import { TakePhoto } from "./take";
import { useJobView } from "~/view/view";

/** So many of a job’s pictures are offered, the newest first. */
const OFFERED = 6;

/** One of a job’s newest pictures, or a new one. */
export function OfferedPictures({
  photo,
  onPhoto,
}: {
  photo: string | undefined;
  onPhoto: (photo: string | undefined) => void;
}) {
  const { job, number } = useJobView();
  const source = usePictures(number);
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2" role="group" aria-label="Picture">
      <TakePhoto of="job" view={{ number, closed: job.closed !== null }} small />
      {job.photos
        .slice(-OFFERED)
        .reverse()
        .map(({ id, fact }) => (
          <button
            key={id}
            type="button"
            aria-pressed={id === photo}
            aria-label={`On this picture ${fact.body.caption}`}
            className={`rounded border-3 ${id === photo ? "border-primary" : "border-base-300"}`}
            onClick={() => onPhoto(id === photo ? undefined : id)}
          >
            <img src={source(id, "small")} alt="" className="h-14 w-20 rounded object-cover" />
          </button>
        ))}
    </div>
  );
}
