/** Why the camera shows nothing, by the name of what the browser threw. */
const WHY: Record<string, string> = {
	NotAllowedError:
		'The camera was refused. Allow it in the browser’s settings for this page, or type the text.',
	NotFoundError: 'This device has no camera. Use a scanner, or type the text.',
	OverconstrainedError: 'This device has no camera. Use a scanner, or type the text.',
	NotReadableError: 'Another program uses the camera. Close it and try again, or type the text.'
};
const NO_CAMERA =
	'This browser gives this page no camera: the address must begin with https. Use a scanner, or type the text.';
/** A code that stays before the camera is read once in this time. [ms] */
const AGAIN_MS = 2500;

/** Reads codes from the camera into a video until it is stopped; gives the stop, or why there is no picture. */
export async function readCodes(
	video: HTMLVideoElement,
	tell: (code: string) => void
): Promise<{ stop: () => void } | { why: string }> {
	if (!navigator.mediaDevices?.getUserMedia) return { why: NO_CAMERA };
	const { BrowserQRCodeReader } = await import('@zxing/browser');
	let last = { code: '', at: -AGAIN_MS };
	let stream: MediaStream | null = null;
	const off = () => stream?.getTracks().forEach((track) => track.stop());
	try {
		// The camera is opened here and not by the decoder, which waits for good where a slow device plays before it looks.
		stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
		video.srcObject = stream;
		await video.play();
		const controls = new BrowserQRCodeReader().scan(video, (result) => {
			const code = result?.getText().trim();
			const now = performance.now();
			if (!code || (code === last.code && now - last.at < AGAIN_MS)) return;
			last = { code, at: now };
			tell(code);
		});
		return {
			stop: () => {
				controls.stop();
				off();
			}
		};
	} catch (thrown) {
		off();
		const name = thrown instanceof Error ? thrown.name : '';
		return { why: WHY[name] ?? `The camera does not start (${name || 'no reason given'}). Type the text.` };
	}
}
