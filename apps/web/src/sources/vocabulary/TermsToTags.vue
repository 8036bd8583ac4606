<script setup lang="ts">
/** Subject terms made into tags by a rule: those with certain letters, that enough sources bear. */
import { computed, ref } from 'vue';
import type { VocabularyTerm } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import { hasWords } from '../../kit/words.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import { useTerms } from './store.ts';

const { of } = defineProps<{ of: VocabularyTerm[] }>();
const open = defineModel<boolean>('open', { required: true });
const terms = useTerms();
const words = ref('');
const least = ref('3');
const keep = ref(true);
const MOST = 1000;
const fitting = computed(() => {
  const n = Number(least.value) || 0;
  return of.filter((t) => t.subject && t.count >= n && (!words.value.trim() || hasWords(t.name, words.value)));
});
async function make(): Promise<void> {
  const ids = fitting.value.slice(0, MOST).map((t) => t.id);
  if (await terms.toTags(ids, keep.value)) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" title="Make tags of subject terms" at="side">
    <form class="mt-4 flex flex-col gap-3" @submit.prevent="make">
      <KitField v-model="words" above label="Terms that contain these words" placeholder="all" />
      <KitField v-model="least" above label="and are on at least this many sources" inputmode="numeric" class="w-40" />
      <label class="flex items-baseline gap-2"
        ><KitCheck
          class="translate-y-0.5"
          :checked="keep"
          label="Leave the terms on the records"
          @check="keep = !keep"
        />
        <span
          >Leave the terms on the records<span class="block text-fine text-muted"
            >Otherwise the tags replace them.</span
          ></span
        ></label
      >
      <p aria-live="polite">
        <b>{{ counted(fitting.length, 'term') }}</b><template v-if="fitting.length > MOST"
          >, the first {{ formatNumber(MOST) }} of them now</template
        >
      </p>
      <p class="max-h-64 overflow-auto text-fine">
        <span v-for="t in fitting.slice(0, 80)" :key="t.id" class="mr-2 inline-block"
          ><span class="term">{{ t.name }}</span> <span class="count">{{ t.count }}</span></span
        ><template v-if="fitting.length > 80">and {{ fitting.length - 80 }} more</template>
      </p>
      <div class="flex justify-end gap-2">
        <KitButton @click="open = false">Leave it</KitButton>
        <KitButton look="main" type="submit" :disabled="!fitting.length">Make tags of them</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
