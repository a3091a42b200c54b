import { useWhen } from "~/door/when";
import { Form, Link, redirect, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import type { Route } from "./+types/photos";
import { useJobView } from "~/view/view";
import { services, signedIn } from "~/server/context";
import { record } from "~/server/record";
import { jobIdByNumber } from "~store/jobs";
import { addPhoto } from "~store/photos";
import { MarkUp } from "./mark-up";
import { scaled } from "./picture";
import { usePictures } from "./source";
import { TakePhoto } from "./take";
import { useSay } from "~/say/use-say";
import { skipTabChanges } from "~/look/revalidate";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Photos ${params.number} · Yard Key` }];

export const shouldRevalidate = skipTabChanges;

/** A picture from a plain form, where the page's script has not loaded. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { pool } = context.get(services);
  const { staff } = context.get(signedIn);
  const job = await jobIdByNumber(pool, Number(params.number));
  if (!job) throw new Response("There is no such job.", { status: 404 });
  const file = (await request.formData()).get("picture");
  if (!(file instanceof File) || file.size === 0) return { problem: "Choose a picture." };
  const picture = await scaled(new Uint8Array(await file.arrayBuffer()));
  if (!picture.ok) return { problem: `${file.name} is ${picture.problem}.` };
  const id = newId();
  const { width, height, large, small } = picture;
  await addPhoto(pool, job, { id, width, height, large, small });
  const body = { kind: "photo", photo: id, caption: "", of: "job" } as const;
  const fact = { id: newId(), at: new Date().toISOString(), by: staff.name, body };
  const kept = await record(context, Number(params.number), [fact], staff);
  return kept.ok ? redirect(`/jobs/${params.number}/photos`) : { problem: `Not kept: ${kept.problem}.` };
};

/** The job's pictures: small, opened large, captioned and drawn on. */
export default function Photos({ actionData }: Route.ComponentProps) {
  const when = useWhen();
  const view = useJobView();
  const { job, number } = view;
  const [search] = useSearchParams();
  const source = usePictures(number);
  const photos = job.photos;
  const open = photos.find(({ id }) => id === search.get("open"));
  return (
    <section className="plate p-4" aria-label="Photos">
      {open ? (
        <OpenPhoto key={open.id} photo={open.id} source={source(open.id, "large")} />
      ) : (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <TakePhoto of="job" view={{ number: view.number, closed: view.job.closed !== null }} />
            <span className="quiet">
              {photos.length === 0
                ? "No photo yet. Take one before anything is moved: the plate, the plug, the leak."
                : `${photos.length} photo${photos.length > 1 ? "s" : ""}. Scaled, and without the place they were taken at.`}
            </span>
            <noscript>
              <Form method="post" encType="multipart/form-data" className="flex gap-2">
                <input type="file" name="picture" accept="image/*" aria-label="Picture" />
                <button className="btn touch">Keep the picture</button>
              </Form>
            </noscript>
            {actionData?.problem && (
              <p role="alert" className="text-error font-semibold">
                {actionData.problem}
              </p>
            )}
          </div>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-3">
            {photos.map(({ id, fact, marks }) => (
              <li key={id} data-photo={id}>
                <Link to={`?open=${id}`} className="block">
                  <span className="border-base-300 bg-base-200 relative block h-40 overflow-hidden rounded border-2">
                    <img
                      src={source(id, "small")}
                      alt={fact.body.caption || `Photo by ${fact.by}`}
                      loading="lazy"
                      className="size-full object-contain"
                    />
                    {marks.length > 0 && (
                      <span className="bg-error text-error-content absolute top-1 right-1 rounded px-1.5 text-sm font-bold">
                        {marks.length} marked
                      </span>
                    )}
                  </span>
                  <span className="block leading-tight font-semibold">
                    {fact.body.caption || "No caption"}
                  </span>
                  <span className="quiet block text-sm">
                    {fact.by}, {when.day(fact.at)}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function OpenPhoto({ photo, source }: { photo: string; source: string }) {
  const when = useWhen();
  const { job } = useJobView();
  const say = useSay();
  const found = job.photos.find(({ id }) => id === photo);
  if (!found) return null;
  const { fact, marks } = found;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_290px] gap-4">
      <MarkUp
        photo={photo}
        source={source}
        marks={marks}
        closed={job.closed !== null}
        alt={fact.body.caption}
      />
      <div>
        <Link to="." className="btn touch mb-3">
          All photos
        </Link>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            const caption = new FormData(event.currentTarget).get("caption");
            say({ ...fact.body, caption: typeof caption === "string" ? caption.trim().slice(0, 300) : "" });
          }}
        >
          <label className="stamp mb-1 block" htmlFor="caption">
            Caption
          </label>
          <textarea
            id="caption"
            name="caption"
            rows={3}
            maxLength={300}
            defaultValue={fact.body.caption}
            className="textarea w-full text-lg"
          />
          {!job.closed && <button className="btn btn-primary touch mt-2">Keep the caption</button>}
        </form>
        {fact.body.caption && (
          <p className="mt-2" role="status">
            “{fact.body.caption}”
          </p>
        )}
        <p className="quiet mt-2 text-sm">
          {fact.by}, {when.moment(fact.at)}
        </p>
        <ul className="mt-3">
          {marks.map((mark, i) => (
            <li key={mark.id} className="border-base-300 flex items-center gap-2 border-t py-1">
              <span className="grow">
                {i + 1}. {mark.body.shape}, {mark.by}
              </span>
              {!job.closed && (
                <button
                  type="button"
                  className="btn touch"
                  onClick={() => say({ ...mark.body, there: false, mark: mark.id })}
                >
                  Take away
                </button>
              )}
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
