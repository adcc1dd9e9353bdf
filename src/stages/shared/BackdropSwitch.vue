<script setup lang="ts">
import { useSettings, type Backdrop } from '../../stores/settings.ts';
import ViewSwitch from '../../ui/ViewSwitch.vue';

const settings = useSettings();
const CHOICES: readonly { value: Backdrop; name: string }[] = [{ value: 'hatch', name: 'hatch' }, { value: 'paper', name: 'paper' }, { value: 'blank', name: 'blank' }, { value: 'loud', name: 'loud' }];
</script>

<template><ViewSwitch v-model="settings.backdrop" :choices="CHOICES" label="Backdrop behind the art" /></template>
