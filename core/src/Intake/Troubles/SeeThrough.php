<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Alpha;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Surfaces told to be glass that are not: no part of them is clear, or all of it is. */
final class SeeThrough implements Trouble
{
    public function code(): string
    {
        return 'seeThrough';
    }

    public function look(Subject $subject): ?Finding
    {
        $names = array_map(static fn (int $i): string => Alpha::name($subject->draft, $i), self::found($subject));
        if ($names === []) {
            return null;
        }

        return Finding::ofFile(
            'seeThrough', Severity::Harms,
            count($names) === 1
                ? "The surface \"{$names[0]}\" is see-through, which hardly was meant."
                : count($names).' surfaces are see-through, which hardly was meant.',
            'One would see the far side through the near one, or nothing at all.', [], 'Make solid', safe: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        foreach (self::found($subject) as $i) {
            $m = $subject->draft->list('materials')[$i];
            $pbr = is_array($m['pbrMetallicRoughness'] ?? null) ? $m['pbrMetallicRoughness'] : [];
            if (is_array($pbr['baseColorFactor'] ?? null)) {
                $pbr['baseColorFactor'][3] = 1.0;
            }
            $subject->draft->amend('materials', $i, ['alphaMode' => null, 'alphaCutoff' => null, 'pbrMetallicRoughness' => $pbr]);
        }
    }

    /** @return list<int> materials */
    private static function found(Subject $subject): array
    {
        $found = [];
        foreach ($subject->draft->list('materials') as $i => $m) {
            if (($m['alphaMode'] ?? 'OPAQUE') === 'OPAQUE') {
                continue;
            }
            $factor = Alpha::factor($m);
            $picture = $subject->alpha($m);
            $nothing = $factor < 0.05 || ($picture !== null && $picture->clear > 0.995);
            $allSolid = ($m['alphaMode'] === 'BLEND') && $factor > 0.97 && ($picture === null || $picture->solid > 0.995);
            if ($nothing || $allSolid) {
                $found[] = $i;
            }
        }

        return $found;
    }
}
