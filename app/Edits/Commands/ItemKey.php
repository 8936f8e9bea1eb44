<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Move;
use CrispReel\Core\Math\Q4;

/** A key of a thing's own motion; the first one also keys where it stands at the start. */
final class ItemKey implements EditCommand
{
    public function name(): string
    {
        return 'item.key';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'turnDeg' => 'sometimes|array|size:3', 'turnDeg.*' => 'numeric|between:-3600,3600',
            'unkey' => 'sometimes|boolean',
        ] + RowRules::of(Move::class, ['frame']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        if ($item->kind === 'performer') {
            throw new UserError(
                'move.performer',
                "\"{$item->name}\" is a performer and moves by motions.",
                'Give the performer a walk, or carry the performer.',
            );
        }
        $old = $item->moves === null ? null : json_decode($item->moves, true);
        $keys = is_array($old)
            ? array_values(array_filter($old, static fn (mixed $k): bool => is_array($k) && $k['frame'] !== (int) $in['frame']))
            : [];
        if (! ($in['unkey'] ?? false)) {
            $keys[] = [
                'frame' => (int) $in['frame'],
                'position' => self::floats($in['position'] ?? [$item->x, $item->y, $item->z]),
                'rotation' => $this->rotation($in, (float) $item->heading_deg),
                'ease' => $in['ease'] ?? 'inOut',
            ];
        }
        usort($keys, static fn (array $a, array $b): int => $a['frame'] <=> $b['frame']);
        $scene->rows->update('items', (int) $item->id, ['moves' => $keys === [] ? null : json_encode($keys)]);

        return "Key {$item->name}";
    }

    /**
     * @param  array<string, mixed>  $in
     * @return list<float>
     */
    private function rotation(array $in, float $headingDeg): array
    {
        if (is_array($in['rotation'] ?? null)) {
            return self::floats($in['rotation']);
        }
        [$x, $y, $z] = is_array($in['turnDeg'] ?? null) ? self::floats($in['turnDeg']) : [0.0, $headingDeg, 0.0];

        return Q4::pitchYawRoll(deg2rad($x), deg2rad($y), deg2rad($z));
    }

    /** @return list<float> */
    private static function floats(mixed $v): array
    {
        return is_array($v) ? array_map(static fn (mixed $n): float => is_numeric($n) ? (float) $n : 0.0, array_values($v)) : [];
    }
}
