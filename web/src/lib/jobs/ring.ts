/** Three short tones; silent where the browser makes none. */
export function ring() {
	try {
		const sound = new AudioContext();
		for (const start of [0, 0.35, 0.7]) {
			const tone = sound.createOscillator();
			tone.frequency.value = 880;
			tone.connect(sound.destination);
			tone.start(sound.currentTime + start);
			tone.stop(sound.currentTime + start + 0.2);
		}
	} catch {
		// No sound on this device: the words on the screen remain.
	}
}
