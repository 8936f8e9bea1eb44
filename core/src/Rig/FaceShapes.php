<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/**
 * Shapes of one face played by another: the same name, or the same meaning told from the words of the name. Sides that the
 * other face does not know apart share one shape; a mouth that it lacks is made of the nearest that it has.
 */
final class FaceShapes
{
    /** Meanings and the words that tell them, joined and in lower case without sides; the first that fits counts. */
    private const MEANINGS = [
        'blink' => '/blink|eyes?clos|clos\w*eyes?|eyelid|lidclos|wink/', 'browsUp' => '/brows?\w*(up|rais)|rais\w*brow|surpris/',
        'browsDown' => '/brows?\w*(down|low|drop)|low\w*brow|frown\w*brow|angry/', 'smile' => '/smil|happy|joy|fun$|grin|corner\w*up/',
        'frown' => '/frown|sad|sorrow|corner\w*down/',
        'mbp' => '/mouthclos|lips?(clos|press|together)|^(v|vis|viseme)?(mbp|mmm|mm|pp|bmp|m|p|b)$/',
        'fv' => '/^(v|vis|viseme)?(fv|ff|f|v)$|lip\w*(roll|bite)/',
        'oo' => '/pucker|funnel|kiss|whistle|^(v|vis|viseme|mouth)?(oo|ou|uu|u|w|woo|uw|uh)$/',
        'oh' => '/^(v|vis|viseme|mouth)?(oh|oo?a|o|ao|ow)$/', 'ee' => '/stretch|^(v|vis|viseme|mouth)?(ee|e|eh|iy|ae)$/',
        'ih' => '/^(v|vis|viseme|mouth)?(ih|i|ss|s|ch|dd|kk|nn|rr)$/', 'el' => '/^(v|vis|viseme|mouth)?(el|l|th|ll)$/',
        'aa' => '/jaw\w*(open|drop|down)|mouthopen|openmouth|^(v|vis|viseme|mouth)?(aa|a|ah|aah)$/',
    ];

    /** What a face without a shape plays in its place, and how much of it. */
    private const NEAR = [
        'ih' => ['ee' => 0.7, 'aa' => 0.4], 'el' => ['ih' => 0.8, 'aa' => 0.5], 'oh' => ['oo' => 0.6, 'aa' => 0.6],
        'ee' => ['smile' => 0.5, 'aa' => 0.3], 'oo' => ['oh' => 0.7], 'aa' => ['oh' => 0.8],
    ];

    /**
     * @param  list<string>  $from  shapes of the motion
     * @param  list<string>  $to  shapes of the face that plays it
     * @return array<int, array<int, float>> shape of the face to shapes of the motion and how much of each
     */
    public static function map(array $from, array $to): array
    {
        $plain = array_map(self::plain(...), $to);
        $means = array_map(self::means(...), $to);
        $out = [];
        foreach ($from as $i => $name) {
            $same = array_keys($plain, self::plain($name), true);
            if ($same !== []) {
                $out[$same[0]][$i] = 1.0;

                continue;
            }
            [$meaning, $side] = self::means($name);
            if ($meaning === '') {
                continue;
            }
            foreach (self::players($meaning, $side, $means) as $j => $share) {
                $out[$j][$i] = $share;
            }
        }

        // Two sides of the motion on one shape of the face: half of each.
        return array_map(static function (array $shares) use ($from): array {
            $sides = array_filter(array_keys($shares), static fn (int $i): bool => self::means($from[$i])[1] !== '');

            return count($sides) < 2 ? $shares : array_map(
                static fn (float $s): float => $s / 2, array_intersect_key($shares, array_flip($sides)),
            )
                + $shares;
        }, $out);
    }

    /**
     * @param  list<array{string, string}>  $means  meaning and side of the face's shapes
     * @return array<int, float>
     */
    private static function players(string $meaning, string $side, array $means): array
    {
        $out = [];
        foreach ($means as $j => [$m, $s]) {
            if ($m === $meaning && ($s === '' || $side === '' || $s === $side)) {
                $out[$j] = 1.0;
            }
        }
        if ($out !== []) {
            return $out;
        }
        foreach (self::NEAR[$meaning] ?? [] as $near => $share) {
            foreach ($means as $j => [$m]) {
                if ($m === $near) {
                    $out[$j] = $share;
                }
            }
        }

        return $out;
    }

    /** The name without what a program puts before it, in lower case, letters and digits only. */
    private static function plain(string $name): string
    {
        return (string) preg_replace('/[^a-z0-9]/', '', strtolower((string) preg_replace('/^.*[.:|]/', '', $name)));
    }

    /** @return array{string, string} meaning (empty: none known) and side: L, R or nothing */
    private static function means(string $name): array
    {
        $bare = (string) preg_replace('/^.*[.:|]/', '', $name);
        $side = '';
        foreach ([
            '/(?<=[a-z0-9_ -])(Left|Right|LEFT|RIGHT)(?![a-z])/', '/(?<=[a-z0-9])([LR])$/', '/[_ -]([LRlr])$/', '/^([LR])(?=[A-Z_])/',
            '/[_ -]?(left|right)$/', '/^(left|right)[_ -]?/',
        ] as $pattern) {
            if (preg_match($pattern, $bare, $m) === 1) {
                $side = strtoupper($m[1][0]);
                $bare = (string) preg_replace($pattern, '', $bare, 1);
                break;
            }
        }
        $plain = self::plain($bare);
        foreach (self::MEANINGS as $meaning => $pattern) {
            if (preg_match($pattern, $plain) === 1) {
                return [$meaning, $side];
            }
        }

        return ['', $side];
    }
}
