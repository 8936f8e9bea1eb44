<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Wrong unit: told by the height of a person, and for things by what could be meant. */
final class Size implements Trouble
{
    /** What one unit of the file may have been, in metres. */
    private const UNITS = [
        'centimetres' => 0.01, 'inches' => 0.0254, 'millimetres' => 0.001, 'decimetres' => 0.1, 'feet' => 0.3048, 'hundredths' => 100.0,
        'tenths' => 10.0, 'metres read as centimetres twice' => 10000.0,
    ];

    /** Metres above and below which a thing is asked about. */
    private const VAST = 200.0;

    private const TINY = 0.02;

    public function code(): string
    {
        return 'size';
    }

    public function look(Subject $subject): ?Finding
    {
        $size = $subject->size();
        $most = max($size);
        if ($most <= 0.0) {
            return null;
        }
        if ($subject->isFigure() && $subject->isPerson()) {
            return self::person($size[1]);
        }
        $prop = $subject->kind() === 'prop';
        $unsaid = in_array($subject->format, ['obj', 'stl', 'ply'], true);
        if ($prop && $most < 0.012) {
            $factor = $most * 100 > 0.012 ? 100.0 : 1000.0;

            return self::thing($most, $factor, 'It would be smaller than a pea.', true);
        }
        if (! $prop && $most > 1500.0) {
            return self::thing($most, $most * 0.01 > 1500 ? 0.001 : 0.01, 'It would be larger than a town.', true);
        }
        if ($most > self::VAST) {
            $factor = $most * 0.01 > 0.5 ? 0.01 : 0.001;

            return self::thing($most, $factor, 'People beside it would be specks, if it was made in centimetres.', false);
        }
        if ($prop && $most < self::TINY) {
            return self::thing($most, 100.0, 'Nobody would find it in the picture, if it was made in metres.', false);
        }
        if (! $prop && $unsaid && $most > 15.0) {
            return self::thing($most, 0.01, 'A person beside it would be tiny, if it was made in centimetres.', false);
        }

        return null;
    }

    private static function person(float $height): ?Finding
    {
        if ($height >= 0.85 && $height <= 2.3) {
            return null;
        }
        $best = null;
        foreach (self::UNITS as $unit => $factor) {
            $h = $height * $factor;
            if ($h >= 1.4 && $h <= 2.1 && ($best === null || abs($h - 1.7) < abs($height * $best[1] - 1.7))) {
                $best = [$unit, $factor];
            }
        }
        $factor = $best[1] ?? round(1.7 / $height, 6);
        $why = $best === null ? 'no usual unit explains it, so it is brought to 1.70 m' : "it was made in {$best[0]}";

        return Finding::ofFile(
            'size', Severity::Harms, sprintf('The figure is %s tall; %s.', Values::metres($height), $why),
            $height > 2.3 ? 'It would tower over the set.' : 'Nobody would find it in the picture.', ['factor' => $factor],
            sprintf('Make it %s tall', Values::metres($height * $factor)), safe: true, unasked: true,
        );
    }

    private static function thing(float $most, float $factor, string $effect, bool $sure): Finding
    {
        return Finding::ofFile(
            'size', $sure ? Severity::Harms : Severity::Look, sprintf('Taken in metres it measures %s.', Values::metres($most)), $effect,
            ['factor' => $factor], sprintf('Make it %s', Values::metres($most * $factor)), safe: $sure,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        Placing::apply($subject, scale: Values::number($with['factor'] ?? null, 1.0, 1e-6, 1e6));
    }
}
