<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Facades\File;
use Illuminate\Validation\ValidationException;
use LucidStep\Core\Access\CommonPasswords;
use LucidStep\Core\Access\Password;

/**
 * Says whether a password can be chosen.
 */
final class ChoosePassword
{
    /**
     * @throws ValidationException by the field, when it cannot
     */
    public static function sure(string $password, string $field = 'password'): string
    {
        $problem = Password::problem($password, new CommonPasswords(File::get(resource_path('passwords/common.bin'))));

        return null === $problem ? $password : throw ValidationException::withMessages([$field => $problem]);
    }
}
