<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
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
		onDone: () => Promise<void>;
	}
	let { tool, kind, onDone }: Props = $props();

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

<p class={['text-sm', tool.calibration_ended ? 'font-semibold text-warning' : 'faint']}>
	{#if tool.calibration}Calibration {tool.calibration}{tool.calibrated_until
			? `, ${tool.calibration_ended ? 'ended on' : 'until'} ${day(tool.calibrated_until)}`
			: ''}
	{:else}No calibration noted{/if}
</p>
{#if session.may('change_tools')}
	<ProblemNote {problem} />
	<button class="btn mt-1" onclick={() => void end()}
		>Withdraw<span class="sr-only">: {tool.name}</span></button
	>
	<AddForm
		what="change"
		action="Change"
		fields={[
			{ key: 'name', name: 'New name', hint: tool.name },
			{ key: 'accuracy_pct', name: 'New accuracy, ± %' }
		]}
		add={edit}
	/>
	<AddForm
		what="calibration"
		fields={[
			{ key: 'calibration', name: 'Calibration certificate', hint: 'number' },
			{ key: 'calibrated_until', name: 'Calibrated until', date: true }
		]}
		add={note}
	/>
{/if}
