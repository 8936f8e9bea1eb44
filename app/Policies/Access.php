<?php

declare(strict_types=1);

namespace App\Policies;

use App\Exceptions\UserError;
use App\Models\Member;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** Who may see and change a production. To anyone else it is not there: 404, never 403. */
final class Access
{
    public static function role(User $user, int $production): ?string
    {
        return Member::query()->where('production_id', $production)->where('user_id', $user->id)->value('role');
    }

    public static function see(User $user, Production|Scene $what): void
    {
        if (self::role($user, $what instanceof Scene ? $what->production_id : $what->id) === null) {
            throw new NotFoundHttpException;
        }
    }

    public static function change(User $user, Production|Scene $what): void
    {
        $role = self::role($user, $what instanceof Scene ? $what->production_id : $what->id);
        if ($role === null) {
            throw new NotFoundHttpException;
        }
        if ($role === 'viewer') {
            throw new UserError(
                'access.viewer',
                'You can watch this production, not change it.',
                'Ask its owner to make you an editor.',
                403,
            );
        }
    }
}
