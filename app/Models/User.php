<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Laravel\Sanctum\HasApiTokens;

/**
 * A person.
 *
 * @property string               $id
 * @property string               $name
 * @property string               $email
 * @property string               $password
 * @property bool                 $is_owner    of the installation: makes projects and looks after people, and sees no project by it
 * @property array<string, mixed> $preferences
 */
final class User extends Authenticatable
{
    use HasApiTokens;
    use HasUuids;

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token'];

    /** @var array<string, mixed> */
    protected $attributes = ['is_owner' => false, 'preferences' => '{}'];

    /** @var array<string, string> */
    protected $casts = ['preferences' => 'array', 'password' => 'hashed', 'is_owner' => 'boolean'];

    /**
     * @return HasMany<Membership, $this>
     */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
