<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use InvalidArgumentException;

/** The power spectrum of a stretch of samples: a fast Fourier transform of radix two (Cooley and Tukey 1965), two stretches at a time. */
final class Fourier
{
    /** @var list<int> where each sample goes first: its number with the bits turned round */
    private readonly array $turned;

    /** @var list<float> */
    private readonly array $cos;

    /** @var list<float> */
    private readonly array $sin;

    /** @param  int  $size  samples of a stretch, a power of two */
    public function __construct(public readonly int $size)
    {
        if ($size < 2 || ($size & ($size - 1)) !== 0) {
            throw new InvalidArgumentException("A transform takes 2, 4, 8 … samples, not {$size}.");
        }
        $bits = (int) log($size, 2);
        $turned = $cos = $sin = [];
        for ($i = 0; $i < $size; $i++) {
            $turned[] = (int) bindec(strrev(str_pad(decbin($i), $bits, '0', STR_PAD_LEFT)));
        }
        for ($i = 0; $i < intdiv($size, 2); $i++) {
            $cos[] = cos(2 * M_PI * $i / $size);
            $sin[] = -sin(2 * M_PI * $i / $size);
        }
        [$this->turned, $this->cos, $this->sin] = [$turned, $cos, $sin];
    }

    /**
     * @param  list<float>  $a  as many samples as the transform takes
     * @param  list<float>  $b  the same
     * @return array{list<float>, list<float>} of each the squares of its parts at 0 to half the rate: size / 2 + 1 numbers
     */
    public function powers(array $a, array $b): array
    {
        // Both are real: the one is the real part of what is transformed, the other the imaginary.
        [$re, $im] = $this->transformed($a, $b);
        $n = $this->size;
        $left = $right = [];
        for ($k = 0; $k <= $n >> 1; $k++) {
            $m = ($n - $k) & ($n - 1);
            [$p, $q, $r, $s] = [$re[$k] + $re[$m], $im[$k] - $im[$m], $im[$k] + $im[$m], $re[$m] - $re[$k]];
            $left[] = 0.25 * ($p * $p + $q * $q);
            $right[] = 0.25 * ($r * $r + $s * $s);
        }

        return [$left, $right];
    }

    /**
     * @param  list<float>  $a
     * @param  list<float>  $b
     * @return array{array<int, float>, array<int, float>}
     */
    private function transformed(array $a, array $b): array
    {
        $n = $this->size;
        $re = $im = [];
        foreach ($this->turned as $from) {
            $re[] = $a[$from];
            $im[] = $b[$from];
        }
        for ($half = 1; $half < $n; $half <<= 1) {
            $step = intdiv($n, $half << 1);
            for ($k = 0; $k < $half; $k++) {
                [$c, $s] = [$this->cos[$k * $step], $this->sin[$k * $step]];
                for ($i = $k; $i < $n; $i += $half << 1) {
                    $j = $i + $half;
                    $x = $re[$j] * $c - $im[$j] * $s;
                    $y = $re[$j] * $s + $im[$j] * $c;
                    $re[$j] = $re[$i] - $x;
                    $im[$j] = $im[$i] - $y;
                    $re[$i] += $x;
                    $im[$i] += $y;
                }
            }
        }

        return [$re, $im];
    }
}
