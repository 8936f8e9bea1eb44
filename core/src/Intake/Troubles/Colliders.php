<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Intake\Finding;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Bodies for reckoning collisions, which nobody means to see. */
final class Colliders implements Trouble
{
    private const NAMES = '/^(ucx|ubx|usp|ucp)_|collision|collider|hit ?box|^col_|_col$|-col$/i';

    public function code(): string
    {
        return 'colliders';
    }

    public function look(Subject $subject): ?Finding
    {
        $found = self::found($subject);
        $all = array_filter($subject->nodes(), static fn (array $n): bool => $n['mesh'] !== null);
        if ($found === [] || count($found) === count($all)) {
            return null;
        }
        $names = array_values(array_map(static fn (int $i): string => $subject->nodes()[$i]['name'], $found));

        return new Finding(
            'colliders', Finding::HARMS,
            count($names) === 1 ? "\"{$names[0]}\" is a body for collisions." : count($names).' bodies for collisions.',
            'Plain blocks would cover the picture.', [], 'Leave them out', safe: true, unasked: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        foreach (self::found($subject) as $i) {
            $subject->left[] = $subject->nodes()[$i]['name'];
        }
        $subject->setNodes(array_fill_keys(self::found($subject), ['mesh' => null, 'skin' => null]));
    }

    /** @return list<int> nodes */
    private static function found(Subject $subject): array
    {
        return array_keys(array_filter(
            $subject->nodes(),
            static fn (array $n): bool => $n['mesh'] !== null && preg_match(self::NAMES, $n['name']) === 1,
        ));
    }
}
