/** What was taken in: the file where there is one, else what was pasted. */
export async function tableGiven(request: Request, pasted: string): Promise<string> {
  const file = (await request.formData()).get("file");
  return file instanceof File && file.size > 0 ? file.text() : pasted;
}
