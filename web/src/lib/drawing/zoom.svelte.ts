const MOST = 8;
const STEP = 1.4;
/** So far a finger moves before it drags and does not tap. [px] */
const DRAG = 6;

/** How a drawing is enlarged and moved, by wheel with Ctrl, by keys, by one finger once enlarged, by two to enlarge. */
export class Zoom {
	scale = $state(1);
	x = $state(0);
	y = $state(0);
	private readonly fingers = new Map<number, { x: number; y: number }>();
	private dragged = false;

	/** Enlarges about a point of the frame, or about its middle. [px] */
	by(factor: number, frame: HTMLElement, at?: { x: number; y: number }) {
		const box = frame.getBoundingClientRect();
		const point = at ? { x: at.x - box.left, y: at.y - box.top } : { x: box.width / 2, y: box.height / 2 };
		const next = Math.min(MOST, Math.max(1, this.scale * factor));
		const ratio = next / this.scale;
		this.scale = next;
		this.move(point.x - (point.x - this.x) * ratio, point.y - (point.y - this.y) * ratio, box);
	}

	/** The whole drawing again. */
	reset() {
		this.scale = 1;
		this.x = this.y = 0;
	}

	/** Never so far that its edge comes into the frame. */
	private move(x: number, y: number, box: { width: number; height: number }) {
		this.x = Math.min(0, Math.max(box.width * (1 - this.scale), x));
		this.y = Math.min(0, Math.max(box.height * (1 - this.scale), y));
	}

	readonly attach = (frame: HTMLElement) => {
		const wheel = (event: WheelEvent) => {
			if (!event.ctrlKey && !event.metaKey) return;
			event.preventDefault();
			this.by(event.deltaY < 0 ? STEP : 1 / STEP, frame, { x: event.clientX, y: event.clientY });
		};
		const down = (event: PointerEvent) => {
			this.fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
			this.dragged = false;
		};
		const moved = (event: PointerEvent) => {
			const before = this.fingers.get(event.pointerId);
			if (!before) return;
			const now = { x: event.clientX, y: event.clientY };
			const other = [...this.fingers].find(([id]) => id !== event.pointerId)?.[1];
			if (other) {
				const apart = (finger: typeof now) => Math.hypot(finger.x - other.x, finger.y - other.y);
				const middle = { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 };
				this.by(apart(now) / Math.max(1, apart(before)), frame, middle);
			} else if (this.scale > 1 && (this.dragged || Math.hypot(now.x - before.x, now.y - before.y) > DRAG)) {
				this.dragged = true;
				this.move(this.x + now.x - before.x, this.y + now.y - before.y, frame.getBoundingClientRect());
			} else return;
			this.fingers.set(event.pointerId, now);
		};
		const up = (event: PointerEvent) => this.fingers.delete(event.pointerId);
		/** The end of a drag taps nothing. */
		const click = (event: MouseEvent) => {
			if (this.dragged) event.stopPropagation();
			this.dragged = false;
		};
		const key = (event: KeyboardEvent) => {
			const way = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
			if (event.key === '+' || event.key === '=') this.by(STEP, frame);
			else if (event.key === '-') this.by(1 / STEP, frame);
			else if (event.key === '0') this.reset();
			else if (way && this.scale > 1 && event.target === frame) {
				const box = frame.getBoundingClientRect();
				this.move(this.x + way[0]! * box.width * 0.15, this.y + way[1]! * box.height * 0.15, box);
			} else return;
			event.preventDefault();
		};
		const ends = new AbortController();
		const { signal } = ends;
		frame.addEventListener('wheel', wheel, { passive: false, signal });
		frame.addEventListener('pointerdown', down, { signal });
		window.addEventListener('pointermove', moved, { signal });
		for (const name of ['pointerup', 'pointercancel'] as const) window.addEventListener(name, up, { signal });
		frame.addEventListener('click', click, { capture: true, signal });
		frame.addEventListener('keydown', key, { signal });
		return () => ends.abort();
	};

	/** One step larger or smaller, for a button. */
	step(larger: boolean, frame: HTMLElement) {
		this.by(larger ? STEP : 1 / STEP, frame);
	}
}
