<script lang="ts" module>
	export const TOOL_COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,7fr)_minmax(0,9fr)_minmax(0,7fr)_6rem]';
</script>

<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Line } from '$lib/list';
	import { session } from '$lib/session';
	import { AddForm, day, ProblemNote } from '$lib/shared';

	interface Props {
		tool: {
			key: string;
			name: string;
			calibration: string;
			calibrated_until: string | null;
			calibration_ended: boolean;
		};
		kind: 'wrenches' | 'gauges';
		/** Its range and how true it is. */
		what: string;
		onDone: () => Promise<void>;
	}
	let { tool, kind, what, onDone }: Props = $props();

	let opened = $state(false);
	let problem = $state.raw<Problem | null>(null);

	async function change(body: Schemas['ToolChange']) {
		const params = { path: { key: tool.key } };
		const answer =
			kind === 'gauges'
				? await ask(api.PATCH('/api/gauges/{key}', { params, body }))
				: await ask(api.PATCH('/api/wrenches/{key}', { params, body }));
		if (!answer.problem) await onDone();
		return answer.problem;
	}
	async function end() {
		problem = await change({ active: false });
	}
	const edit = (v: Record<string, string>) =>
		change({
			name: v.name?.trim() || null,
			accuracy_pct: v.accuracy_pct?.trim() ? Number(v.accuracy_pct.replace(',', '.')) : null
		});
	async function note(v: Record<string, string>) {
		const params = { path: { key: tool.key } };
		const body = { calibration: v.calibration ?? '', calibrated_until: v.calibrated_until ?? '' };
		const answer =
			kind === 'gauges'
				? await ask(api.PUT('/api/gauges/{key}/calibration', { params, body }))
				: await ask(api.PUT('/api/wrenches/{key}/calibration', { params, body }));
		if (!answer.problem) await onDone();
		return answer.problem;
	}
</script>

<Line columns={TOOL_COLUMNS} edge={tool.calibration_ended ? 'border-l-warning' : 'border-l-primary'}>
	<strong class="min-w-0 flex-1 truncate">{tool.name}</strong>
	<span class="min-w-0">{what}</span>
	<span class={['min-w-0', tool.calibration_ended ? 'font-semibold text-warning' : 'faint']}>
		{#if tool.calibration}<span class="lg:sr-only">Calibration </span>{tool.calibration}{tool.calibrated_until
				? `, ${tool.calibration_ended ? 'ended on' : 'until'} ${day(tool.calibrated_until)}`
				: ''}
		{:else}No calibration noted{/if}
	</span>
	<span class="text-right">
		{#if session.may('change_tools')}<button
				class="btn"
				aria-expanded={opened}
				onclick={() => (opened = !opened)}>Edit<span class="sr-only"> {tool.name}</span></button
			>{/if}
	</span>
	{#snippet below()}
		{#if opened}
			<div class="rounded-b bg-base-200 p-3">
				<ProblemNote {problem} />
				<AddForm
					what="calibration"
					open
					fields={[
						{ key: 'calibration', name: 'Calibration certificate', hint: 'number' },
						{ key: 'calibrated_until', name: 'Calibrated until', date: true }
					]}
					add={note}
				/>
				<AddForm
					what="change"
					action="Change"
					fields={[
						{ key: 'name', name: 'New name', hint: tool.name },
						{ key: 'accuracy_pct', name: 'New accuracy, ± %' }
					]}
					add={edit}
				/>
				<button class="btn mt-2" onclick={() => void end()}
					>Withdraw<span class="sr-only">: {tool.name}</span></button
				>
			</div>
		{/if}
	{/snippet}
</Line>
