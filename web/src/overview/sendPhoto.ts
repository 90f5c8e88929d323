import { type Problem, Refused, type Schemas } from "../api/client";

/** sendPhoto uploads a picture. */
export async function sendPhoto(file: Blob): Promise<Schemas["PhotoKept"]> {
  const r = await fetch("/api/photos", {
    method: "POST",
    body: file,
    headers: { "Content-Type": "application/octet-stream" },
  });
  const body = (await r.json().catch(() => ({}))) as unknown;
  if (!r.ok) throw new Refused(r.status, body as Problem);
  return body as Schemas["PhotoKept"];
}
