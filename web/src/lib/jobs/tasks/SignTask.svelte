<script lang="ts">
	import PenLine from '@lucide/svelte/icons/pen-line';
	import { untrack } from 'svelte';
	import { AskField, filled } from '$lib/asks';
	import { session, Signature, SignatureDialog } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import { TaskForm } from './form.svelte';
	import type { TaskProps } from './props';

	let { store, view, task, focused, onDone }: TaskProps = $props();

	const id = $props.id();
	const form = untrack(() => new TaskForm(store, task));
	let pin = $state('');
	/** The large keys, for a hand without a keyboard. */
	let signing = $state(false);
	const claim = $derived(view.statement[0] ?? '');
	const beside = $derived(view.statement.slice(1));

	$effect(() => form.save());
	const sign = (pin: string) => store.sign(filled(task.entry, task.asks, $state.snapshot(form.values)), pin);
	const signature = untrack(() => new Signature(sign, onDone));
	/** Emptied with each attempt, so that nobody signs with what another typed. */
	function signed() {
		if (!pin) {
			signing = true;
			return;
		}
		const given = pin;
		pin = '';
		void signature.give(given);
	}
	$effect(() => {
		void session.key;
		pin = '';
	});
	const focusWhenWanted = (node: HTMLElement) => {
		if (focused) node.focus();
	};
</script>

<p class="font-semibold">The certificate will state</p>
<p data-claim>{claim}</p>
{#if beside.length}
	<ul class="ml-5 list-disc font-semibold text-warning" data-beside>
		{#each beside as sentence (sentence)}<li>{sentence}</li>{/each}
	</ul>
{/if}
<p class={view.signing.may_release ? 'faint' : 'font-semibold text-warning'}>
	{view.signing.why_not ?? `You may release this unit: ${view.signing.authority}.`}
</p>
{#each task.asks as ask (ask.field)}
	<AskField {ask} bind:value={form.values[ask.field]} />
{/each}
{#if view.signing.letterhead_missing.length}
	<p class="font-semibold text-warning" data-letterhead>
		The certificate has no {view.signing.letterhead_missing.join(', no ')} of the shop on it yet:
		<a class="link" href="/workshop/rules#letterhead">enter the letterhead</a>.
	</p>
{/if}
<p class="faint text-sm">
	Your name, {session.person?.name ?? '…'}, is printed on the certificate. The maker's manual, local codes and
	licensed practice win.
</p>
<form
	class="space-y-2"
	data-form
	onsubmit={(event) => {
		event.preventDefault();
		signed();
	}}
>
	<ProblemNote problem={signature.refused} />
	<label class="flex flex-wrap items-center gap-x-3 font-semibold" for={id}
		>PIN or password
		<input
			{id}
			bind:value={pin}
			class={['entry input min-w-32 flex-1', signature.fault && 'input-error']}
			type="password"
			autocomplete="off"
			maxlength="128"
			disabled={!view.signing.may_release}
			aria-invalid={signature.fault ? 'true' : undefined}
			aria-describedby="{id}-fault"
			{@attach focusWhenWanted}
		/></label
	>
	<p id="{id}-fault" class="font-semibold text-error first-letter:uppercase" role="status">
		{signature.fault ?? ''}
	</p>
	<button class="btn btn-primary min-h-14 w-full text-lg" disabled={!view.signing.may_release}
		><PenLine size={24} aria-hidden="true" />{task.action}</button
	>
</form>
{#if signing}
	<SignatureDialog
		what="release of {view.job.unit}"
		{sign}
		onDone={() => {
			signing = false;
			onDone();
		}}
	/>
{/if}
