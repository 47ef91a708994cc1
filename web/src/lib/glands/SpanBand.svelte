<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { plain, shown } from '$lib/shared';

	interface Props {
		name: string;
		span: Schemas['SpanOut'];
		low: number;
		high: number;
		formula: string;
	}
	let { name, span, low, high, formula }: Props = $props();

	const from = $derived(Math.min(low, span.min, 0));
	const to = $derived(Math.max(high, span.max) * 1.15 + 1);
	const at = (value: number) => ((value - from) / (to - from)) * 100;
	const inside = $derived(span.nominal >= low && span.nominal <= high);
	const worst = $derived(span.min >= low && span.max <= high);
	const words = $derived(
		inside ? (worst ? 'within limits' : 'leaves the limits at the worst') : 'outside the limits'
	);
</script>

<div class="mb-2">
	<p class="flex flex-wrap justify-between gap-x-3">
		<span
			><strong>{name} {shown(span.nominal, 1)} %</strong>
			<span class="faint">({shown(span.min, 1)} to {shown(span.max, 1)} %)</span></span
		>
		<span class={inside ? (worst ? 'text-success' : 'text-warning') : 'text-error'}
			>{words} {plain(low)} to {plain(high)} %</span
		>
	</p>
	<svg viewBox="0 0 100 8" preserveAspectRatio="none" class="h-5 w-full" aria-hidden="true">
		<rect x="0" y="3" width="100" height="2" fill="var(--color-base-300)" />
		<rect
			x={at(low)}
			y="1"
			width={at(high) - at(low)}
			height="6"
			fill="var(--color-success)"
			opacity="0.35"
		/>
		<rect
			x={at(span.min)}
			y="2.5"
			width={Math.max(at(span.max) - at(span.min), 0.4)}
			height="3"
			fill="var(--color-primary)"
		/>
		<rect x={at(span.nominal) - 0.4} y="0" width="0.8" height="8" fill="var(--color-base-content)" />
	</svg>
	<details class="text-sm">
		<summary class="faint min-h-8 cursor-pointer">Show the formula</summary>
		<p>{formula}</p>
	</details>
</div>
