/** A tone that rises as the reading gets better, for one who cannot look. */
export function useTone() {
  const on = ref(false)
  let context: AudioContext | null = null
  let oscillator: OscillatorNode | null = null
  let share = 0.3

  const pitch = () => 220 * 2 ** (Math.min(1, Math.max(0, share)) * 2.5)

  function stop() {
    oscillator?.stop()
    oscillator = null
    void context?.close()
    context = null
    on.value = false
  }

  function toggle() {
    if (on.value) return stop()
    context = new AudioContext()
    const gain = context.createGain()
    gain.gain.value = 0.12
    oscillator = context.createOscillator()
    oscillator.frequency.value = pitch()
    oscillator.connect(gain).connect(context.destination)
    oscillator.start()
    on.value = true
  }

  /** @param s  0 worst … 1 best */
  function set(s: number) {
    share = s
    oscillator?.frequency.setTargetAtTime(pitch(), context!.currentTime, 0.05)
  }

  return { on, toggle, set, stop }
}
