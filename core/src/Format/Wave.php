<?php

declare(strict_types=1);

namespace CrispReel\Core\Format;

/**
 * A sound of one channel: samples from -1 to 1 at so many a second. Sums, filters and changes of loudness are done on it in
 * place of separate tools; a file is RIFF WAVE with 16-bit integers (Multimedia Programming Interface 1.0, chapter 3).
 */
final class Wave
{
    /** @param  array<int, float>  $samples  from 0 on, each -1 to 1 */
    public function __construct(public readonly int $rate, public array $samples)
    {
    }

    public static function silence(int $rate, float $seconds): self
    {
        return new self($rate, array_fill(0, max(0, (int) round($rate * $seconds)), 0.0));
    }

    public function seconds(): float
    {
        return count($this->samples) / $this->rate;
    }

    /** The loudest sample, 0 to 1. */
    public function peak(): float
    {
        $peak = 0.0;
        foreach ($this->samples as $s) {
            $peak = max($peak, abs($s));
        }

        return $peak;
    }

    /** Root of the mean square between two moments, seconds. */
    public function level(float $from = 0.0, ?float $to = null): float
    {
        $a = max(0, (int) round($from * $this->rate));
        $b = min(count($this->samples), (int) round(($to ?? INF) === INF ? count($this->samples) : $to * $this->rate));
        $sum = 0.0;
        for ($i = $a; $i < $b; $i++) {
            $sum += $this->samples[$i] ** 2;
        }

        return $b > $a ? sqrt($sum / ($b - $a)) : 0.0;
    }

    /** Laid over from a moment on; what reaches past the end is cut. */
    public function mix(self $other, float $at = 0.0, float $gain = 1.0): self
    {
        $start = (int) round($at * $this->rate);
        $end = min(count($other->samples), count($this->samples) - $start);
        for ($i = max(0, -$start); $i < $end; $i++) {
            $this->samples[$start + $i] += $gain * $other->samples[$i];
        }

        return $this;
    }

    /** The same with so many samples a second, straight between them; what is higher than the lower rate can hold is to be gone before. */
    public function at(int $rate): self
    {
        if ($rate === $this->rate) {
            return $this;
        }
        $out = [];
        $last = count($this->samples) - 1;
        for ($i = 0, $n = (int) round(count($this->samples) * $rate / $this->rate); $i < $n; $i++) {
            $x = min((float) $last, $i * $this->rate / $rate);
            $k = (int) $x;
            $out[] = $this->samples[$k] + ($this->samples[min($last, $k + 1)] - $this->samples[$k]) * ($x - $k);
        }

        return new self($rate, $out);
    }

    /** As loud as asked at its loudest, with its mean (a constant pressure that nobody hears) taken away. */
    public function levelled(float $peak): self
    {
        $n = count($this->samples);
        $mean = $n > 0 ? array_sum($this->samples) / $n : 0.0;
        $samples = [];
        foreach ($this->samples as $s) {
            $samples[] = $s - $mean;
        }
        $out = new self($this->rate, $samples);
        $gain = $peak / max(1e-9, $out->peak());
        foreach ($out->samples as $i => $s) {
            $out->samples[$i] = $s * $gain;
        }

        return $out;
    }

    /** Fades in and out, seconds each. */
    public function faded(float $in, float $out): self
    {
        $n = count($this->samples);
        [$a, $b] = [(int) round($in * $this->rate), (int) round($out * $this->rate)];
        for ($i = 0; $i < min($a, $n); $i++) {
            $this->samples[$i] *= $i / $a;
        }
        for ($i = 0; $i < min($b, $n); $i++) {
            $this->samples[$n - 1 - $i] *= $i / $b;
        }

        return $this;
    }

    /** One that begins as it ends: its last seconds are laid over its first, each with the share that keeps the power. */
    public function looped(float $over): self
    {
        $k = min((int) round($over * $this->rate), intdiv(count($this->samples), 2));
        $n = count($this->samples) - $k;
        $out = array_slice($this->samples, 0, $n);
        for ($i = 0; $i < $k; $i++) {
            $t = 0.5 * M_PI * $i / $k;
            $out[$i] = sin($t) * $this->samples[$i] + cos($t) * $this->samples[$n + $i];
        }

        return new self($this->rate, $out);
    }

    public function toWav(): string
    {
        $data = '';
        foreach (array_chunk($this->samples, 4096) as $part) {
            $numbers = [];
            foreach ($part as $s) {
                $numbers[] = (int) round(max(-1.0, min(1.0, $s)) * 32767.0) & 0xFFFF;
            }
            $data .= pack('v*', ...$numbers);
        }

        return 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, $this->rate, 2 * $this->rate, 2, 16).'data'
            .pack('V', strlen($data)).$data;
    }

    /** Raw little-endian 16-bit samples of one channel. */
    public static function fromPcm(int $rate, string $pcm): self
    {
        $samples = [];
        foreach (str_split(substr($pcm, 0, strlen($pcm) & ~1), 65536) as $part) {
            foreach ($part === '' ? [] : (unpack('v*', $part) ?: []) as $v) {
                $v = is_int($v) ? $v : 0;
                $samples[] = ($v < 32768 ? $v : $v - 65536) / 32768.0;
            }
        }

        return new self($rate, $samples);
    }

    /**
     * How loud it is, in so many equal stretches: the loudest sample of each, 0 to 1.
     *
     * @return list<float>
     */
    public function outline(int $stretches): array
    {
        $n = count($this->samples);
        $out = [];
        for ($k = 0; $k < $stretches; $k++) {
            $peak = 0.0;
            $end = max(intdiv($n * $k, $stretches) + 1, intdiv($n * ($k + 1), $stretches));
            for ($i = intdiv($n * $k, $stretches); $i < min($n, $end); $i++) {
                $peak = max($peak, abs($this->samples[$i]));
            }
            $out[] = $peak;
        }

        return $out;
    }
}
