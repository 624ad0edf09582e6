<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\People\Data\NewFactor;
use LucidStep\App\Areas\People\Exceptions\FactorIsThere;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\Totp;

/**
 * A second factor at sign-in: a code of a program on one's phone, or one of ten recovery codes, each once.
 */
final class SecondFactor
{
    private const CODES = 10;

    /**
     * Makes a secret; it counts once a code of it is shown.
     *
     * @throws FactorIsThere when there is one already
     */
    public function begin(User $user): NewFactor
    {
        if (null !== $user->totp_confirmed_at) {
            throw FactorIsThere::already();
        }
        $secret = Totp::secret();
        $user->forceFill(['totp_secret' => $secret])->save();

        return new NewFactor($secret, Totp::uri($secret, $user->email, 'Lucid Step'));
    }

    /**
     * @throws ValidationException when the code is not one of the secret
     * @return list<string> recovery codes, told this once
     */
    public function confirm(User $user, string $code): array
    {
        return Transactions::run(function () use ($user, $code): array {
            $user = User::query()->lockForUpdate()->findOrFail($user->id);
            $secret = $user->totp_secret;
            if (null === $secret || null !== $user->totp_confirmed_at) {
                throw FactorIsThere::already();
            }
            $step = self::stepOf($user, $secret, $code);
            $codes = array_map(self::recoveryCode(...), range(1, self::CODES));
            $user
                ->forceFill([
                    'totp_confirmed_at' => Carbon::now(),
                    'totp_step' => $step,
                    'recovery_codes' => array_map(self::hash(...), $codes),
                ])
                ->save();

            return $codes;
        });
    }

    /**
     * What stands between a right password and signing in.
     *
     * @throws ValidationException when a code is needed, or this is none
     */
    public function pass(User $user, string $code): void
    {
        if (null === $user->totp_confirmed_at || null === $user->totp_secret) {
            return;
        }
        $code = Str::lower(trim($code));
        if ('' === $code) {
            throw ValidationException::withMessages(['code' => 'Enter the six digits that your phone shows, or a recovery code.']);
        }
        Transactions::run(function () use ($user, $code): void {
            $user = User::query()->lockForUpdate()->findOrFail($user->id);
            $left = array_values(array_filter($user->recovery_codes, static fn(string $h): bool => !hash_equals($h, self::hash($code))));
            $change =
                \count($left) < \count($user->recovery_codes)
                    ? ['recovery_codes' => $left]
                    : ['totp_step' => self::stepOf($user, (string) $user->totp_secret, $code)];
            $user->forceFill($change)->save();
        });
    }

    /**
     * @throws ValidationException when the password is not theirs
     */
    public function drop(User $user, string $password): void
    {
        if (!Hash::check($password, $user->password)) {
            throw ValidationException::withMessages(['password' => 'This is not the password that you have now.']);
        }
        self::clear($user);
    }

    /**
     * Of somebody who lost their phone and their codes.
     */
    public static function clear(User $user): void
    {
        $user->forceFill(['totp_secret' => null, 'totp_confirmed_at' => null, 'totp_step' => 0, 'recovery_codes' => []])->save();
    }

    private static function stepOf(User $user, string $secret, string $code): int
    {
        $code = (string) preg_replace('/\s/', '', $code);
        $now = Carbon::now()->getTimestamp();
        $step = Totp::step($secret, $code, $now, $user->totp_step);
        if (null !== $step) {
            return $step;
        }
        $off = Totp::clockIsOff($secret, $code, $now);
        throw ValidationException::withMessages([
            'code' => match (true) {
                null === $off => 'This is not the code of now. Each counts once, and for half a minute.',
                default => \sprintf(
                    'The clock of your phone is about %d seconds %s. Set it to the time of the network, and take the next code.',
                    abs($off),
                    $off > 0 ? 'ahead' : 'behind',
                ),
            },
        ]);
    }

    /**
     * Ten letters and digits that nobody takes for another, 49 bits.
     */
    private static function recoveryCode(): string
    {
        $letters = 'abcdefghjkmnpqrstuvwxyz23456789';
        $any = static fn(): string => $letters[random_int(0, \strlen($letters) - 1)];

        return implode('-', array_map(static fn(): string => implode('', array_map($any, range(1, 5))), [1, 2]));
    }

    private static function hash(string $code): string
    {
        return hash_hmac('sha256', $code, (string) config('app.key'));
    }
}
