import { expect, test } from "./test";
import { BenchHands } from "./bench-hands";
import { PAGES } from "./pages";

test("no page runs a script that is not its own, asks another server, or is shown in a frame", async ({
  page,
  baseURL,
}) => {
  const complaints: string[] = [];
  const elsewhere: string[] = [];
  page.on("console", (message) => {
    if (/content security policy|violates|refused/i.test(message.text())) complaints.push(message.text());
  });
  page.on("request", (request) => {
    const { protocol, origin } = new URL(request.url());
    if (protocol.startsWith("http") && origin !== baseURL) elsewhere.push(request.url());
  });
  for (const path of [...PAGES, "/jobs/new"]) {
    const response = (await page.goto(path))!;
    const headers = response.headers();
    expect(headers["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+'/);
    expect(headers["content-security-policy"]).not.toMatch(/script-src[^;]*unsafe-inline/);
    expect(headers).toMatchObject({
      "x-content-type-options": "nosniff",
      "x-frame-options": "DENY",
      "referrer-policy": "no-referrer",
    });
    await expect(page.getByRole("heading").first()).toBeVisible();
  }
  // the practice machine listens in a worker, with its own policy
  const hands = new BenchHands(page);
  await hands.open("demo-job-0415", "speed");
  await hands.play("1.2 % fast");
  await expect(hands.speed).toHaveAttribute("aria-valuetext", /\d/);
  expect(complaints).toEqual([]);
  expect(elsewhere).toEqual([]);

  const ran = await page.evaluate(async () => {
    const runs: string[] = [];
    Object.assign(window, { runs });
    const script = document.createElement("script");
    script.textContent = "window.runs.push('script')";
    document.body.append(script);
    const holder = document.createElement("div");
    holder.innerHTML = '<img src="data:," onerror="window.runs.push(1)">';
    document.body.append(holder);
    await new Promise((resolve) => setTimeout(resolve, 300));
    return runs;
  });
  expect(ran).toEqual([]);
});
