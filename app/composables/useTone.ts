import { nth } from '#core/sure'
import { pitchHz, pulseHz } from '#core/aim'

/** Values are compared with what they were so long ago: whether it rises, ms. */
const TREND_MS = 1500
const VOLUME = 0.14
const SPEAK_EACH_MS = 2500

/**
 * What is heard of a reading by one who cannot look: pitch for how good, pulses for whether it rises, two notes up at a
 * new best; or the figure spoken. A phone trembles at a new best as well.
 */
export function useTone() {
  const on = ref(false)
  const spoken = ref(false)
  const volume = useLocalStorage('tone-volume', 1)
  let context: AudioContext | null = null
  let voice: OscillatorNode | null = null
  let pulse: OscillatorNode | null = null
  let loud: GainNode | null = null
  let last: { atMs: number; share: number }[] = []
  let best = -Infinity
  let saidAt = 0

  function stop() {
    voice?.stop()
    pulse?.stop()
    voice = pulse = loud = null
    void context?.close()
    context = null
    if ('speechSynthesis' in window) speechSynthesis.cancel()
    on.value = false
  }

  function start() {
    context = new AudioContext()
    loud = context.createGain()
    loud.gain.value = spoken.value ? 0 : VOLUME * volume.value
    const gate = context.createGain()
    gate.gain.value = 0.5
    pulse = context.createOscillator()
    pulse.type = 'square'
    pulse.frequency.value = pulseHz(0)
    const depth = context.createGain()
    depth.gain.value = 0.5
    pulse.connect(depth).connect(gate.gain)
    voice = context.createOscillator()
    voice.frequency.value = pitchHz(last.at(-1)?.share ?? 0.3)
    voice.connect(gate).connect(loud).connect(context.destination)
    voice.start()
    pulse.start()
    on.value = true
  }

  const toggle = () => (on.value ? stop() : start())

  /** Two notes up. */
  function chime() {
    navigator.vibrate?.(80)
    if (!context) return
    for (const [i, hz] of [880, 1320].entries()) {
      const note = context.createOscillator()
      const gain = context.createGain()
      gain.gain.value = VOLUME * volume.value * 1.4
      note.frequency.value = hz
      note.connect(gain).connect(context.destination)
      note.start(context.currentTime + i * 0.1)
      note.stop(context.currentTime + i * 0.1 + 0.09)
    }
  }

  function speak(words: string, nowMs: number) {
    if (!('speechSynthesis' in window) || nowMs - saidAt < SPEAK_EACH_MS || speechSynthesis.speaking) return
    saidAt = nowMs
    speechSynthesis.speak(new SpeechSynthesisUtterance(words))
  }

  /** @param share  0 worst … 1 best  @param words  what is said where figures are spoken */
  function set(share: number, words: string, nowMs = performance.now()) {
    last = [...last.filter(x => nowMs - x.atMs < TREND_MS), { atMs: nowMs, share }]
    const trend = share - nth(last, 0).share
    if (context && voice && pulse) {
      voice.frequency.setTargetAtTime(pitchHz(share), context.currentTime, 0.03)
      pulse.frequency.setTargetAtTime(pulseHz(trend), context.currentTime, 0.05)
      loud!.gain.setTargetAtTime(spoken.value ? 0 : VOLUME * volume.value, context.currentTime, 0.03)
    }
    if (on.value && spoken.value) speak(words, nowMs)
  }

  /** Told what is kept: a new best is heard, and told. */
  function kept(value: number): boolean {
    const better = value > best && best !== -Infinity
    best = Math.max(best, value)
    if (better) chime()
    return better
  }
  const begin = () => (best = -Infinity)

  return { on, spoken, volume, toggle, set, kept, begin, stop }
}
