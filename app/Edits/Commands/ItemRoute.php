<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Route;

/** Gives a thing a route over the ground, changes it, or (points null) takes it away. */
final class ItemRoute implements EditCommand
{
    public function name(): string
    {
        return 'item.route';
    }

    public function rules(): array
    {
        $rules = RowRules::of(Route::class);

        return ['item' => 'required', 'points' => ['nullable', ...$rules['points']]] + $rules;
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind === 'performer') {
            throw new UserError(
                'route.performer',
                "\"{$item->name}\" is a performer, who walks along a path.",
                'Give a walk of the performer a path.',
            );
        }
        $before = $item->route === null ? null : json_decode($item->route, true);
        if (array_key_exists('points', $in) && $in['points'] === null) {
            $scene->rows->update('items', (int) $item->id, ['route' => null]);

            return "{$item->name} stays";
        }
        $by = isset($in['by']) ? 'i'.$scene->find('items', $in['by'])->id : null;
        $route = array_filter([
            'points' => is_array($in['points'] ?? null) ? array_map(
                static fn (mixed $p): array => is_array($p) ? array_map(floatval(...), array_values($p)) : [],
                array_values($in['points']),
            ) : null,
            'from' => $in['from'] ?? null, 'to' => $in['to'] ?? null, 'speed' => $in['speed'] ?? null, 'by' => $by,
        ], static fn (mixed $v): bool => $v !== null) + (is_array($before) ? $before : []) + ['points' => []];
        foreach (['to', 'by'] as $key) {
            if (array_key_exists($key, $in) && $in[$key] === null) {
                unset($route[$key]);
            }
        }
        $scene->rows->update('items', (int) $item->id, ['route' => json_encode($route)]);

        return "Route of {$item->name}";
    }
}
