<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Casts\Attribute;
use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Illuminate\Support\Carbon;
use Laravel\Sanctum\HasApiTokens;
use LucidStep\App\Support\Access\HiddenNames;
use LucidStep\Core\People\Preferences;

/**
 * A person.
 *
 * @property string               $id
 * @property string               $name
 * @property string               $email
 * @property string               $password
 * @property bool                 $is_owner    of the installation: makes projects and looks after people, and sees no project by it
 * @property ?string              $totp_secret        of a second factor, in base 32
 * @property ?Carbon              $totp_confirmed_at  since when it is asked for
 * @property int                  $totp_step          of the code that was taken last
 * @property list<string>         $recovery_codes     their hashes
 * @property array<string, mixed> $preferences as {@see Preferences::toArray()} gives them
 */
final class User extends Authenticatable
{
    use HasApiTokens;
    use HasUuids;

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token', 'totp_secret', 'recovery_codes'];

    /** @var array<string, mixed> */
    protected $attributes = [
        'is_owner' => false,
        'preferences' => '{}',
        'totp_secret' => null,
        'totp_confirmed_at' => null,
        'totp_step' => 0,
        'recovery_codes' => '[]',
    ];

    /** @var array<string, string> */
    protected $casts = [
        'preferences' => 'array',
        'password' => 'hashed',
        'is_owner' => 'boolean',
        'totp_secret' => 'encrypted',
        'totp_confirmed_at' => 'datetime',
        'totp_step' => 'integer',
        'recovery_codes' => 'array',
    ];

    /**
     * The name as whoever reads may see it.
     */
    protected function name(): Attribute
    {
        return Attribute::get(HiddenNames::shown(...));
    }

    /**
     * How this person wants to work.
     */
    public function chosen(): Preferences
    {
        return Preferences::fromArray($this->preferences);
    }

    /**
     * @return HasMany<Membership, $this>
     */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
