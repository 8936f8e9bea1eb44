<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Cloth\Fabric;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** Document to CompiledScene. */
final class SceneCompiler
{
    /** An empty scene still has this many seconds to scrub in. */
    private const LEAST_SECONDS = 4.0;

    /** @var array<string, Figure> */
    private array $figures = [];

    /** @var array<string, Fabric> by file, which never changes */
    private static array $fabrics = [];

    private function __construct(private readonly Document $document, private readonly AssetSource $assets)
    {
    }

    /** @throws UnableToCompile */
    public static function compile(Document $document, AssetSource $assets): CompiledScene
    {
        return (new self($document, $assets))->run();
    }

    private function run(): CompiledScene
    {
        $order = $this->order();
        $lanes = [];
        $places = [];
        $compiler = new LaneCompiler($this->document, $this->assets, $this->figure(...));
        foreach ($this->document->items as $item) {
            $places[$item->id] = Placement::standing($item->position, $item->headingDeg, $item->scale);
            $figure = $this->figure($item);
            if ($figure !== null) {
                $lanes[$item->id] = $compiler->lane($item, $figure);
            }
        }
        $drives = $this->drives($lanes, $places);
        $frames = $this->frames($lanes, $drives);
        $shots = array_map(static fn (Shot $s): Shot => $s->until($frames), $this->document->shots);
        $scene = new CompiledScene(
            $this->document, $lanes, $places, [], $this->grasps(), $order, $frames, $shots, $compiler->notes, [], $this->touchUps(),
            $drives,
        );
        $scene->holds = (new HoldCompiler($this->document, $this->assets, $lanes))->holds();
        foreach ($order as $id) {
            $this->carries($scene, $id);
        }
        array_push($scene->notes, ...HoldCompiler::outOfReach($scene));
        $this->cloths($scene);

        return $scene;
    }

    private function cloths(CompiledScene $scene): void
    {
        foreach ($this->document->items as $item) {
            $asset = $this->document->assets[$item->asset];
            $extras = $this->assets->digest($asset)['extras'] ?? [];
            $facts = is_array($extras) ? $extras['cloth'] ?? null : null;
            if (is_array($facts) && $item->kind !== 'performer') {
                $facts = $item->cloth?->over($facts) ?? $facts;
                $key = $asset->blob.json_encode($item->cloth?->toArray());
                $scene->cloths[$item->id] = new ClothRun(
                    $scene,
                    $item,
                    self::$fabrics[$key] ??= Fabric::of(GltfReader::read($this->assets->blob($asset)), $facts),
                    $this->assets,
                );
            }
        }
    }

    private function figure(Item $item): ?Figure
    {
        $asset = $this->document->assets[$item->asset];
        $digest = $this->assets->digest($asset);
        if (! is_array($digest['skeleton'] ?? null)) {
            return null;
        }

        /** @var array<string, mixed> $digest */
        return $this->figures[$asset->digest] ??= new Figure($asset->blob, $digest);
    }

    /**
     * @param  array<string, Lane>  $lanes
     * @param  array<string, Placement>  $places
     * @return array<string, Drive>
     */
    private function drives(array $lanes, array $places): array
    {
        $out = [];
        $around = new Surroundings($this->document, $this->assets);
        foreach ($this->document->items as $item) {
            if ($item->route === null) {
                continue;
            }
            if ($item->kind === 'performer') {
                throw UnableToCompile::noRoute($item->name);
            }
            $digest = $this->assets->digest($this->document->assets[$item->asset]);
            $out[$item->id] = new Drive(
                $item, $item->route, Vehicle::of($digest), $this->figure($item), $around, $this->assets,
                $this->document->rate->perSecond(), $lanes, $item->route->by === null ? null : $places[$item->route->by],
                $this->pushing($item),
            );
        }

        return $out;
    }

    /** @return array{int, int|null}|null frames in which the hands of the one who pushes are on it */
    private function pushing(Item $item): ?array
    {
        $found = null;
        foreach ($this->document->contacts as $c) {
            if ($c->target === $item->id && $c->item === $item->route?->by) {
                $found = $found === null
                    ? [$c->from, $c->to]
                    : [min($found[0], $c->from), $found[1] === null || $c->to === null ? null : max($found[1], $c->to)];
            }
        }

        return $found;
    }

    /**
     * @param  array<string, Lane>  $lanes
     * @param  array<string, Drive>  $drives
     */
    private function frames(array $lanes, array $drives): int
    {
        $end = $this->document->rate->frame(self::LEAST_SECONDS);
        $found = 0.0;
        foreach ($lanes as $lane) {
            $found = max($found, $lane->end(false));
        }
        foreach ($drives as $drive) {
            $found = max($found, $drive->end());
        }
        foreach ($this->document->items as $item) {
            $found = max($found, ($item->moves[count($item->moves) - 1]['frame'] ?? -1) + 1.0);
        }
        foreach ($this->document->shots as $s) {
            $found = max($found, (float) ($s->out ?? $s->in + 1));
        }
        foreach ($this->document->cameras as $c) {
            $found = max($found, $c->keys[count($c->keys) - 1]->frame + 1);
        }

        if ($found <= 0.0) {
            // Nothing but what repeats: once through the longest of it.
            foreach ($lanes as $lane) {
                $found = max($found, $lane->end());
            }
        }

        return (int) ceil(($found > 0.0 ? $found : $end) - 1e-6);
    }

    /**
     * Depth-first topological order of items over carries.
     *
     * @return list<string>
     */
    private function order(): array
    {
        $parents = [];
        foreach ($this->document->links as $l) {
            $parents[$l->child][$l->parent] = true;
        }
        $parents = $this->withContacts($parents);
        $order = [];
        foreach (array_keys($this->document->items) as $id) {
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
        foreach (array_keys($this->document->items) as $id) {
            $this->visit((string) $id, [], $parents, $links);
        }
        foreach ($this->document->contacts as $c) {
            if ($c->target !== null && $c->target !== $c->item && ! $hangsOn($c->target, $c->item)) {
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

        return array_map(fn (string $i): string => $this->document->items[$i]->name, $circle);
    }

    /** @return array<string, list<array{\CrispReel\Core\Document\TouchUp, int}>> */
    private function touchUps(): array
    {
        $out = [];
        foreach ($this->document->touchUps as $t) {
            $item = $this->document->items[$t->item];
            $joint = $this->figure($item)?->skeleton->joint($t->joint);
            $out[$t->item][] = [$t, $joint ?? throw UnableToCompile::noSuchMount($item->name, $t->joint)];
        }

        return $out;
    }

    /** @return array<string, list<Grasp>> */
    private function grasps(): array
    {
        $out = [];
        foreach ($this->document->links as $l) {
            $side = match ($l->mount) {
                'handL' => 'L', 'handR' => 'R', default => null,
            };
            if ($side !== null && $l->keep === 'grip') {
                $out[$l->parent][] = new Grasp($side, $l->from, $l->to, 1.15);
            }
        }

        return $out;
    }

    private function carries(CompiledScene $scene, string $child): void
    {
        $links = array_values(array_filter($this->document->links, static fn (Link $l): bool => $l->child === $child));
        usort($links, static fn (Link $a, Link $b): int => [$a->from, $a->id] <=> [$b->from, $b->id]);
        $scene->carries[$child] = $links === [] ? [] : [new Carry(0, null, null, $scene->places[$child], own: true)];
        foreach ($links as $i => $link) {
            // Where it is just before the carry begins, by what has been settled so far.
            $now = SceneEvaluator::place($scene, $child, $link->from);
            [$joint, $mount] = $this->mountOf($link);
            $parent = SceneEvaluator::jointPlace($scene, $link->parent, $joint, $link->from)->of($mount);
            [$offset, $upright] = $this->offset($scene, $link, $mount, $parent, $now);
            $scene->carries[$child][] = new Carry($link->from, $link->parent, $joint, $offset, $upright, $link->easeFrames, $now);
            $next = $links[$i + 1]->from ?? null;
            if ($link->to !== null && ($next === null || $next > $link->to)) {
                $scene->carries[$child][] = $this->released($scene, $link, $links[$i + 1] ?? null);
            }
        }
    }

    /** What a carry that ends leaves: a thing at rest, one that falls, or one that flies to whoever catches it. */
    private function released(CompiledScene $scene, Link $link, ?Link $next): Carry
    {
        $at = (int) $link->to;
        $place = SceneEvaluator::place($scene, $link->child, $at);
        if ($link->release === 'stay') {
            return new Carry($at, null, null, $place);
        }
        if ($next !== null) {
            [$joint, $mount] = $this->mountOf($next);
            $parent = SceneEvaluator::jointPlace($scene, $next->parent, $joint, $next->from)->of($mount);
            [$offset, $upright] = $this->offset($scene, $next, $mount, $parent, $place);
            $there = SceneEvaluator::jointPlace($scene, $next->parent, $joint, $next->from);
            $caught = $next->keep === 'place' ? $parent : ($upright ? new Placement(
                V3::add($parent->position, $offset->position),
                Q4::aroundY(Q4::heading($there->rotation)),
                $offset->scale,
            ) : $there->of($offset));

            return new Carry(
                $at,
                null,
                null,
                $place,
                caught: new Placement($caught->position, $caught->rotation, $place->scale),
                until: $next->from,
            );
        }
        $before = SceneEvaluator::place($scene, $link->child, $at - 1);
        $velocity = $link->velocity ?? V3::mul(V3::sub($place->position, $before->position), $this->document->rate->perSecond());
        $digest = $this->assets->digest($this->document->assets[$this->document->items[$link->child]->asset]);

        /** @var array{list<float>, list<float>} $bounds */
        $bounds = $digest['bounds'] ?? [[-0.05, 0.0, -0.05], [0.05, 0.1, 0.05]];
        $reach = 4.0 + 2 * V3::length($velocity);
        [$x, $y, $z] = $place->position;
        $solids = (new Surroundings($this->document, $this->assets))->solids([$x - $reach, $z - $reach, $x + $reach, $z + $reach]);
        $floor = min(0.0, $y - 0.5);

        return new Carry(
            $at,
            null,
            null,
            $place,
            fall: new Fall(
                $place,
                $velocity,
                $bounds,
                static fn (float $px, float $pz, float $top): float => $solids->height($px, $pz, $top) ?? $floor,
            ),
        );
    }

    /** @return array{int|null, Placement} joint of a figure, and the mount in its (or the item's) space */
    private function mountOf(Link $link): array
    {
        $none = new Placement([0.0, 0.0, 0.0]);
        $item = $this->document->items[$link->parent];
        if ($link->mount === '') {
            return [null, $none];
        }
        $figure = $this->figure($item);
        $joint = $figure?->skeleton->joint($link->mount);
        if ($figure !== null && $joint !== null) {
            $grip = match ($link->mount) {
                'handL' => $figure->grip('L'), 'handR' => $figure->grip('R'), default => null,
            };

            return [$joint, $link->keep === 'grip' && $grip !== null ? new Placement($grip[0], $grip[1]) : $none];
        }

        return [null, Mounts::of($this->document, $this->assets, $item, $link->mount)];
    }

    /**
     * Keep-place holds what was; a grip brings the child's own hold to the parent's mount.
     *
     * @return array{Placement, bool}
     */
    private function offset(CompiledScene $scene, Link $link, Placement $mount, Placement $parentMount, Placement $now): array
    {
        $scale = $now->scale;
        if ($link->keep === 'place') {
            $unscaled = new Placement($parentMount->position, $parentMount->rotation);
            $rel = $unscaled->inverse()->of($now);

            return [
                $mount->of(new Placement(V3::mul($rel->position, 1 / $parentMount->scale), $rel->rotation, $scale / $parentMount->scale)),
                false,
            ];
        }
        $asset = $this->document->assets[$this->document->items[$link->child]->asset];
        $mounts = $this->assets->digest($asset)['mounts'] ?? [];
        $mounts = is_array($mounts) ? $mounts : [];
        $hang = isset($mounts['hang']);

        /** @var array{position: array{float, float, float}, rotation: array{float, float, float, float}} $hold */
        $hold = $mounts['hang'] ?? $mounts['hold'] ?? ['position' => [0.0, 0.0, 0.0], 'rotation' => Q4::IDENTITY];
        $back = (new Placement($hold['position'], $hold['rotation']))->inverse();
        $own = new Placement(V3::mul($back->position, $scale / $parentMount->scale), $back->rotation, $scale / $parentMount->scale);
        if ($hang) {
            // Turned upright at each frame: keep the hold's place apart from the mount's turn.
            return [new Placement(V3::mul($hold['position'], -$scale), Q4::IDENTITY, $scale), true];
        }

        return [$mount->of($own), false];
    }
}
