<script setup lang="ts">
/** What members wrote about the whole of a source, under a heading of the same rank as those beside it. */
import { useSessionStorage } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { LONGEST_GLOSS, routes, type Gloss } from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import TimeText from '../../kit/TimeText.vue';
import { useSession } from '../../session/store.ts';

const props = defineProps<{ id: string; heading: 'h2' | 'h3'; pause?: () => number }>();
const session = useSession();
const { change } = useChanges();
const { data, error } = useAsked({
  question: () => props.id,
  fetch: async (source, signal) => (await ask(routes.glosses.list, { source, signal })).glosses,
  concerns: (touched, id) => concerns(touched, ['source'], id) || concerns(touched, ['gloss']),
  pause: props.pause,
});

/** A gloss that is being written; `gloss` is the one that is rewritten, as it was when one began, null for a new one. */
interface Draft {
  gloss: Gloss | null;
  text: string;
  personal: boolean;
}
// By source, so that another that is selected meanwhile, or a reload, loses nothing. It is no other's who signs in here.
const drafts = useSessionStorage<Record<string, Draft>>(
  `gloss drafts ${session.user?.userId} ${session.workspace?.id}`,
  {},
);
const draft = computed(() => drafts.value[props.id]);
const field = useTemplateRef('field');
const form = useTemplateRef('form');
const isSaving = ref(false);

async function write(gloss: Gloss | null): Promise<void> {
  drafts.value[props.id] = { gloss, text: gloss?.text ?? '', personal: gloss?.personal ?? !session.may('mark') };
  await nextTick();
  // With its buttons, in a slip that is low.
  form.value?.scrollIntoView({ block: 'nearest' });
  field.value?.focus({ preventScroll: true });
}

async function save(): Promise<void> {
  const one = draft.value;
  const source = props.id;
  if (!one?.text.trim() || isSaving.value) return;
  const { gloss, text, personal } = one;
  isSaving.value = true;
  const done = await change(() =>
    gloss
      ? ask(routes.glosses.edit, { gloss: gloss.id, body: { text, seen: gloss.text } })
      : ask(routes.glosses.write, { source, body: { text, personal } }),
  );
  isSaving.value = false;
  // What was refused stays written.
  if (done) discard(source);
}
const discard = (source: string): boolean => delete drafts.value[source];
/** By Esc only where nothing would be lost. */
function leave(): void {
  if (draft.value && draft.value.text.trim() === (draft.value.gloss?.text ?? '')) discard(props.id);
}
const share = (gloss: Gloss): Promise<unknown> => change(() => ask(routes.glosses.share, { gloss: gloss.id }));
const remove = (gloss: Gloss): Promise<unknown> => change(() => ask(routes.glosses.remove, { gloss: gloss.id }));
</script>

<template>
  <section v-if="data?.length || draft || session.may('own') || error" aria-label="Glosses">
    <component :is="heading" class="heading mb-0.5 flex justify-between"
      >Glosses<KitButton
        v-if="session.may('own') && !draft"
        look="quiet"
        class="font-normal print:hidden"
        @click="write(null)"
        >+ gloss</KitButton
      ></component
    >
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <ul>
      <li v-for="g in data ?? []" :key="g.id" class="group border-b border-line py-1 last:border-0">
        <template v-if="draft?.gloss?.id !== g.id">
          <p class="whitespace-pre-line break-words text-fine">{{ g.text }}</p>
          <p class="flex items-baseline gap-2 text-label text-muted">
            <span
              >{{ g.by }}, <TimeText :at="g.at" to="day" /><template v-if="g.personal"> · yours alone</template></span
            >
            <template v-if="(g.personal || session.may('mark')) && !draft"
              ><KitButton
                v-if="g.personal && session.may('mark')"
                look="quiet"
                class="at-hand text-label print:hidden"
                name="Show the gloss to all members"
                @click="share(g)"
                >Show to all</KitButton
              ><KitButton look="quiet" class="at-hand text-label print:hidden" name="Edit the gloss" @click="write(g)"
                >Edit</KitButton
              ><KitButton
                look="quiet"
                class="at-hand text-label hover:text-madder print:hidden"
                name="Remove the gloss"
                @click="remove(g)"
                >Remove</KitButton
              ></template
            >
          </p>
        </template>
      </li>
    </ul>
    <form v-if="draft" ref="form" class="mt-1 print:hidden" @submit.prevent="save" @keydown.esc.stop="leave">
      <KitField
        ref="field"
        v-model="draft.text"
        label="Gloss on the whole source"
        :lines="3"
        :maxlength="LONGEST_GLOSS"
        placeholder="What you think of it as a whole"
        @keydown.ctrl.enter.prevent="save"
        @keydown.meta.enter.prevent="save"
      />
      <p class="mt-1 flex flex-wrap items-center justify-end gap-1.5">
        <label v-if="!draft.gloss" class="mr-auto flex items-center gap-1.5 text-fine"
          ><KitCheck
            :checked="draft.personal"
            label="For yourself alone"
            :disabled="!session.may('mark')"
            @check="draft.personal = !draft.personal"
          />For yourself alone</label
        >
        <KitButton @click="discard(id)">Cancel</KitButton
        ><KitButton look="main" type="submit" :disabled="!draft.text.trim() || isSaving" title="Ctrl+Enter"
          >Save</KitButton
        >
      </p>
    </form>
  </section>
</template>
