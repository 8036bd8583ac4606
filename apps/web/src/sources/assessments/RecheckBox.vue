<script setup lang="ts">
/** Says that sources are to be checked again, and why; where one is, says that it has been. */
import { ref } from 'vue';
import type { Chosen } from '@pandecta/contract';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitPopover from '../../kit/KitPopover.vue';
import { useAssessments } from './store.ts';

const { recheck = null, look = 'quiet' } = defineProps<{
  chosen: Chosen;
  recheck?: string | null;
  look?: 'quiet' | 'plain';
}>();
const assessments = useAssessments();
const reason = ref('');
</script>

<template>
  <span v-if="recheck !== null" class="flex flex-wrap items-baseline gap-x-2">
    <span class="text-ochre">Check again{{ recheck ? `: ${recheck}` : '' }}</span>
    <KitButton look="word" @click="assessments.recheck(chosen, null)">Checked</KitButton>
  </span>
  <KitPopover v-else :look="look" focus @open="reason = ''"
    ><template #button>{{ look === 'quiet' ? '+ check again' : 'Check again…' }}</template
    ><template #default="{ close }">
      <form class="flex w-72 flex-col gap-2 p-3" @submit.prevent="(assessments.recheck(chosen, reason), close())">
        <KitField v-model="reason" above label="What is to be checked" placeholder="the page number" maxlength="500" />
        <p class="flex justify-end"><KitButton look="main" type="submit">Check again</KitButton></p>
      </form></template
    ></KitPopover
  >
</template>
