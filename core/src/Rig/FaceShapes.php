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
        'blink' => '/blink|eyes?clos|clos\w*eyes?|eyelid|lidclos|wink/', 'cheek' => '/^cheek(squint|up|rais\w*)?$/',
        'squint' => '/squint/', 'wide' => '/eyes?wide|wide\w*eyes?|^wide$/',
        'browInUp' => '/brows?in(ner)?up|inn?er\w*brow\w*(up|rais)/', 'browOutUp' => '/brows?out(er)?up|outer\w*brow\w*(up|rais)/',
        'browsUp' => '/brows?\w*(up|rais)|rais\w*brow|surpris/',
        'browDown' => '/brows?\w*(down|low|drop)|low\w*brow|frown\w*brow|angry/', 'sneer' => '/sneer/',
        'cornerUp' => '/corner\w*up|mouthsmile/', 'cornerDown' => '/corner\w*down|mouthfrown/', 'smile' => '/smil|happy|joy|fun$|grin/',
        'frown' => '/frown|sad|sorrow/', 'seal' => '/^seal$|mouthclos/', 'press' => '/^press$|lips?(clos|press|together)|mouthpress/',
        'lowerIn' => '/^lowerin$|rolllower|lip\w*(roll|bite)/', 'upperUp' => '/upper(lip)?up/', 'lowerDown' => '/lower(lip)?down/',
        'chinUp' => '/^chinup$|shruglower|chinrais/', 'aside' => '/^mouth$/', 'tongueUp' => '/tongueup/', 'tongueOut' => '/tongueout/',
        'mbp' => '/^(v|vis|viseme)?(mbp|mmm|mm|pp|bmp|m|p|b)$/', 'fv' => '/^(v|vis|viseme)?(fv|ff|f|v)$/',
        'pucker' => '/pucker|kiss|whistle/', 'funnel' => '/funnel/',
        'oo' => '/^(v|vis|viseme|mouth)?(oo|ou|uu|u|w|woo|uw|uh)$/', 'oh' => '/^(v|vis|viseme|mouth)?(oh|oo?a|o|ao|ow)$/',
        'stretch' => '/stretch/', 'ee' => '/^(v|vis|viseme|mouth)?(ee|e|eh|iy|ae)$/',
        'ih' => '/^(v|vis|viseme|mouth)?(ih|i|ss|s|ch|dd|kk|nn|rr)$/', 'el' => '/^(v|vis|viseme|mouth)?(el|l|th|ll)$/',
        'jawOpen' => '/jaw\w*(open|drop|down)|mouthopen|openmouth/', 'aa' => '/^(v|vis|viseme|mouth)?(aa|a|ah|aah)$/',
    ];

    /**
     * What a face without a shape plays in its place, and how much of it: first the first list of which it has something. Whole
     * mouths are sums of their parts, parts the whole mouth that is most like them; what opens is taken back by what is shut.
     */
    private const NEAR = [
        'aa' => [['jawOpen' => 0.85, 'upperUp' => 0.25, 'lowerDown' => 0.3], ['oh' => 0.8]],
        'ee' => [['stretch' => 0.9, 'upperUp' => 0.4, 'lowerDown' => 0.5, 'jawOpen' => 0.2], ['smile' => 0.5, 'aa' => 0.3]],
        'ih' => [['stretch' => 0.4, 'jawOpen' => 0.28, 'upperUp' => 0.3, 'lowerDown' => 0.4], ['ee' => 0.7, 'aa' => 0.4]],
        'oh' => [['funnel' => 0.75, 'jawOpen' => 0.5], ['oo' => 0.6, 'aa' => 0.6]],
        'oo' => [['pucker' => 0.9, 'funnel' => 0.25, 'jawOpen' => 0.1], ['oh' => 0.7]],
        'el' => [['jawOpen' => 0.36, 'tongueUp' => 1.0, 'upperUp' => 0.3, 'lowerDown' => 0.35], ['ih' => 0.8, 'aa' => 0.5]],
        'mbp' => [['press' => 0.85]], 'fv' => [['lowerIn' => 1.0]],
        'smile' => [['cornerUp' => 1.0, 'cheek' => 0.4, 'squint' => 0.15]], 'frown' => [['cornerDown' => 0.9, 'browInUp' => 0.5]],
        'browsUp' => [['browInUp' => 0.8, 'browOutUp' => 0.9, 'wide' => 0.25]],
        'jawOpen' => [['aa' => 0.9], ['oh' => 0.8]], 'seal' => [['jawOpen' => -1.0], ['aa' => -0.9]],
        'press' => [['mbp' => 1.0], ['seal' => 0.2]], 'lowerIn' => [['fv' => 1.0]], 'upperUp' => [['ih' => 0.3]],
        'lowerDown' => [['ih' => 0.3]], 'funnel' => [['oh' => 0.8], ['pucker' => 0.6, 'jawOpen' => 0.2], ['oo' => 0.6]],
        'pucker' => [['oo' => 1.0], ['funnel' => 0.8], ['oh' => 0.5]], 'stretch' => [['ee' => 0.6], ['cornerUp' => 0.4], ['smile' => 0.3]],
        'tongueUp' => [['el' => 0.5]], 'tongueOut' => [['el' => 0.4]], 'cornerUp' => [['smile' => 1.0]],
        'cornerDown' => [['frown' => 1.0]], 'browInUp' => [['browsUp' => 0.5]], 'browOutUp' => [['browsUp' => 0.5]],
        'wide' => [['browsUp' => 0.2]], 'squint' => [['blink' => 0.25]],
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
        foreach (self::NEAR[$meaning] ?? [] as $sum) {
            foreach ($sum as $near => $share) {
                foreach ($means as $j => [$m, $s]) {
                    if ($m === $near && ($s === '' || $side === '' || $s === $side)) {
                        $out[$j] = $share;
                    }
                }
            }
            if ($out !== []) {
                break;
            }
        }

        return $out;
    }

    /** The side that a name says: L, R or nothing. */
    public static function side(string $name): string
    {
        return self::means($name)[1];
    }

    /** Whether a shape by that name opens or shuts the lids. */
    public static function isLid(string $name): bool
    {
        return in_array(self::means($name)[0], ['blink', 'wide'], true);
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
