import { renderToReadableStream } from "react-dom/server";
import { pageWith, toldOf } from "~/kit/http/page.server";

/** Pages as a device draws them for itself. */
export default pageWith(async (page, { nonce, told }) => {
  try {
    const stream = await renderToReadableStream(page, { nonce, onError: told });
    await stream.allReady;
    return await new Response(stream).text();
  } catch (error) {
    told(error);
    return "";
  }
});
export const handleError = toldOf;
