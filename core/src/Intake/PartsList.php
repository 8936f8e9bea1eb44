<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Format\Gltf\Triangles;

/** What was in the file and what became of it. In file = made + skipped, by name. */
final readonly class PartsList
{
    /**
     * @param  list<string>  $made
     * @param  array<string, string>  $skipped  name to why
     */
    public function __construct(public int $inFile, public array $made, public array $skipped)
    {
    }

    /**
     * @param  array<int, string>  $before  node to its name, of all nodes that carried an object when the file was opened
     * @param  array<int, string>  $why  nodes that were left out, with the reason
     */
    public static function of(Subject $subject, array $before, array $why): self
    {
        $solid = [];
        foreach ($subject->solids() as $s) {
            if (count($s['index']) >= 3) {
                $solid[$s['node']] = true;
            }
        }
        $made = $skipped = $used = [];
        foreach ($before as $node => $name) {
            // Names need not be unique in a file; in the list they are.
            $used[$name] = ($used[$name] ?? 0) + 1;
            $name = $used[$name] > 1 ? "{$name} ({$used[$name]})" : $name;
            if (isset($solid[$node])) {
                $made[] = $name;
            } else {
                $skipped[$name] = $why[$node]
                    ?? (self::isDrawing($subject, $node) ? 'it is made of lines or points, which have no faces' : 'it has no faces');
            }
        }

        return new self(count($before), $made, $skipped);
    }

    /** Lines and points alone. */
    private static function isDrawing(Subject $subject, int $node): bool
    {
        $mesh = $subject->draft->list('nodes')[$node]['mesh'] ?? null;
        $primitives = Json::maps(is_int($mesh) ? $subject->draft->list('meshes')[$mesh]['primitives'] ?? [] : []);

        return $primitives !== [] && array_filter(
            $primitives,
            static fn (array $p): bool => in_array($p['mode'] ?? Triangles::LIST, Triangles::MODES, true),
        ) === [];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['inFile' => $this->inFile, 'made' => $this->made, 'skipped' => (object) $this->skipped];
    }
}
