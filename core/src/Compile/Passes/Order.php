<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\UnableToCompile;

/** Items, parents before what they carry: depth first over carries and contacts; circles are refused. */
final class Order implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $draft->putOrder($this->order());
    }

    /**
     * Depth-first topological order of items over carries.
     *
     * @return list<string>
     */
    private function order(): array
    {
        $parents = [];
        foreach ($this->draft->document->links as $l) {
            $parents[$l->child][$l->parent] = true;
        }
        $parents = $this->withContacts($parents);
        $order = [];
        foreach (array_keys($this->draft->document->items) as $id) {
            $this->visit((string) $id, [], $parents, $order);
        }

        return array_keys($order);
    }

    /**
     * A performer comes after what it holds on to, unless that hangs on the performer itself.
     *
     * @param  array<string, array<string, true>>  $parents
     * @return array<string, array<string, true>>
     */
    private function withContacts(array $parents): array
    {
        $hangsOn = static function (string $a, string $b) use (&$hangsOn, &$parents): bool {
            foreach (array_keys($parents[$a] ?? []) as $p) {
                if ($p === $b || $hangsOn((string) $p, $b)) {
                    return true;
                }
            }

            return false;
        };
        // Circles of carries are refused below; they must not be walked here.
        $links = [];
        foreach (array_keys($this->draft->document->items) as $id) {
            $this->visit((string) $id, [], $parents, $links);
        }
        foreach ($this->draft->document->contacts as $c) {
            // Looks read where eyes are before anybody looks: they order nothing.
            if ($c->target !== null && $c->effector !== 'look' && $c->target !== $c->item && ! $hangsOn($c->target, $c->item)) {
                $parents[$c->item][$c->target] = true;
            }
        }

        return $parents;
    }

    /**
     * @param  list<string>  $path  items on the way here
     * @param  array<string, array<string, true>>  $parents
     * @param  array<string, true>  $order  added to
     */
    private function visit(string $id, array $path, array $parents, array &$order): void
    {
        if (isset($order[$id])) {
            return;
        }
        if (in_array($id, $path, true)) {
            throw UnableToCompile::linkCycle($this->namesFrom($path, $id));
        }
        foreach (array_keys($parents[$id] ?? []) as $p) {
            $this->visit((string) $p, [...$path, $id], $parents, $order);
        }
        $order[$id] = true;
    }

    /**
     * @param  list<string>  $path
     * @return list<string>
     */
    private function namesFrom(array $path, string $id): array
    {
        $circle = [...array_slice($path, (int) array_search($id, $path, true)), $id];

        return array_map(fn (string $i): string => $this->draft->document->items[$i]->name, $circle);
    }
}
