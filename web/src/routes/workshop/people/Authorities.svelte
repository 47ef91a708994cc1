<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { day, faultAt, ProblemNote } from '$lib/shared';

	interface Props {
		person: Schemas['PersonOut'];
		known: Schemas['WordOut'][];
		mayManage: boolean;
		onChanged: () => Promise<void>;
	}
	let { person, known, mayManage, onChanged }: Props = $props();

	const id = $props.id();
	let authority = $state('');
	let until = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function grant(event: SubmitEvent) {
		event.preventDefault();
		const path = { key: person.key, authority: authority as Schemas['Authority'] };
		const answer = await ask(
			api.PUT('/api/people/{key}/authorisations/{authority}', { params: { path }, body: { until } })
		);
		problem = answer.problem;
		await onChanged();
	}

	async function withdraw(which: Schemas['Authority']) {
		const path = { key: person.key, authority: which };
		const answer = await ask(
			api.DELETE('/api/people/{key}/authorisations/{authority}', { params: { path } })
		);
		problem = answer.problem;
		await onChanged();
	}
</script>

{#if person.authorisations.length}
	<ul class="mt-2">
		{#each person.authorisations as held (held.authority)}
			<li class="flex flex-wrap items-center gap-x-3 border-t border-base-300 py-1">
				<span class="flex-1"
					>May release: <strong>{held.word}</strong>,
					<span class={held.holds ? '' : 'font-semibold text-error'}
						>{held.holds ? 'to' : 'ended on'} {day(held.until)}</span
					></span
				>
				{#if mayManage}
					<button class="btn btn-ghost" onclick={() => void withdraw(held.authority)}>Withdraw</button>
				{/if}
			</li>
		{/each}
	</ul>
{/if}
{#if mayManage && person.active}
	<details class="mt-1">
		<summary class="btn btn-ghost">Let {person.name} release …</summary>
		<form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={grant}>
			<div>
				<label class="block text-sm font-semibold" for="{id}-which">Kind of work</label>
				<select id="{id}-which" class="entry select w-48" bind:value={authority}>
					{#each known as listed (listed.key)}<option value={listed.key}>{listed.word}</option>{/each}
				</select>
			</div>
			<div>
				<label class="block text-sm font-semibold" for="{id}-until">Last day</label>
				<input id="{id}-until" class="entry input w-44" type="date" bind:value={until} />
			</div>
			<button class="btn btn-primary" disabled={!authority || !until}>Grant</button>
		</form>
		<p class="text-sm text-error">{faultAt(problem, 'until') ?? ''}</p>
	</details>
{/if}
{#if problem && !faultAt(problem, 'until')}<ProblemNote {problem} />{/if}
