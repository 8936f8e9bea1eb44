<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Alpha;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** People as wet as glass: polish that comes from a lost picture or a converter's zero. */
final class Shiny implements Trouble
{
    public function code(): string
    {
        return 'shiny';
    }

    public function look(Subject $subject): ?Finding
    {
        if (! $subject->isFigure()) {
            return null;
        }
        $names = array_map(static fn (int $i): string => Alpha::name($subject->draft, $i), self::found($subject));
        if ($names === []) {
            return null;
        }

        return Finding::ofFile(
            'shiny', Severity::Look,
            count($names) === 1 ? "The surface \"{$names[0]}\" is polished." : count($names).' surfaces are polished.',
            'Skin and cloth would gleam like wet plastic.', ['roughness' => 0.85], 'Make matt', safe: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        $roughness = Values::number($with['roughness'] ?? null, 0.85, 0.0, 1.0);
        foreach (self::found($subject) as $i) {
            $m = $subject->draft->list('materials')[$i];
            $pbr = is_array($m['pbrMetallicRoughness'] ?? null) ? $m['pbrMetallicRoughness'] : [];
            $subject->draft->amend(
                'materials',
                $i,
                ['pbrMetallicRoughness' => ['roughnessFactor' => $roughness, 'metallicFactor' => 0.0] + $pbr],
            );
        }
    }

    /** @return list<int> */
    private static function found(Subject $subject): array
    {
        $found = [];
        foreach ($subject->draft->list('materials') as $i => $m) {
            $pbr = is_array($m['pbrMetallicRoughness'] ?? null) ? $m['pbrMetallicRoughness'] : [];
            $rough = is_numeric($pbr['roughnessFactor'] ?? null) ? (float) $pbr['roughnessFactor'] : 1.0;
            $ours = is_array($m['extras'] ?? null) && isset($m['extras']['paint']);
            if (! $ours && ! isset($pbr['metallicRoughnessTexture']) && $rough < 0.35) {
                $found[] = $i;
            }
        }

        return $found;
    }
}
