<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Bound;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Hair, clothes or bags that no joint moves: each point takes the joints of the nearest point of the bound body. */
final class Unbound implements Trouble
{
    public function code(): string
    {
        return 'unbound';
    }

    public function look(Subject $subject): ?Finding
    {
        $loose = self::loose($subject);
        if ($loose === []) {
            return null;
        }
        $names = array_map(static fn (int $i): string => $subject->nodes()[$i]['name'], $loose);

        return Finding::ofFile(
            'unbound', Severity::Harms,
            (count($names) === 1 ? "\"{$names[0]}\" is" : count($names).' parts are').' not bound to the skeleton.',
            'The figure would walk off without '.(count($names) === 1 ? 'it.' : 'them.'), [], 'Bind to the body', safe: true,
            names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        $draft = $subject->draft;
        $body = $joints = $weights = [];
        foreach ($subject->solids() as $s) {
            if ($s['skinned']) {
                $own = $draft->attributes($s['mesh'], $s['primitive']);
                array_push($body, ...$s['positions']);
                array_push($joints, ...$draft->values($own['JOINTS_0']));
                array_push($weights, ...$draft->values($own['WEIGHTS_0']));
            }
        }
        if ($body === []) {
            return;
        }
        $near = new Nearest($body);
        $loose = array_flip(self::loose($subject));
        $bound = [];
        foreach ($subject->solids() as $s) {
            if (! isset($loose[$s['node']])) {
                continue;
            }
            $js = $ws = [];
            for ($i = 0, $n = count($s['positions']); $i < $n; $i += 3) {
                $v = $near->of($s['positions'][$i], $s['positions'][$i + 1], $s['positions'][$i + 2]);
                array_push($js, ...array_slice($joints, 4 * $v, 4));
                array_push($ws, ...array_slice($weights, 4 * $v, 4));
            }
            $bound[] = [$s, $js, $ws];
        }
        Bound::apply($subject, $bound);
    }

    /** @return list<int> nodes with surfaces that hang on no joint */
    private static function loose(Subject $subject): array
    {
        if (! $subject->isFigure()) {
            return [];
        }
        $joints = array_flip($subject->joints());
        $nodes = $subject->nodes();
        $loose = [];
        foreach ($nodes as $i => $n) {
            if ($n['mesh'] === null || $n['skin'] !== null) {
                continue;
            }
            for ($p = $i; $p >= 0 && ! isset($joints[$p]); $p = $nodes[$p]['parent']);
            if ($p < 0) {
                $loose[] = $i;
            }
        }

        return $loose;
    }
}
