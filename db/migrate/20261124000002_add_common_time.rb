# People's hours and calendars, groups, places, and times kept tentatively.
class AddCommonTime < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  WORD = {limit: 20, collation: "ascii_bin", null: false}.freeze

  def up
    change_table :people do |t|
      t.json :working_hours # null: the usual ones
      t.string :region, limit: 20, collation: "ascii_bin" # whose public holidays
      t.boolean :holidays_off, null: false, default: true
      t.integer :feed_serial, null: false, default: 0 # a new one makes the old private addresses worthless
      t.boolean :feeds_open, null: false, default: false
    end

    table :days_off do |t|
      key t, :person_id, :people, index: false
      t.date :off_on, null: false
      t.string :word, limit: 120
      t.index %i[person_id off_on], unique: true
    end

    table :groups do |t|
      t.string :name, null: false, limit: 120
      t.integer :lock_version, null: false, default: 0
      t.index :name, unique: true
    end

    table :group_members do |t|
      key t, :group_id, :groups, index: false
      key t, :person_id, :people, null: true
      key t, :member_group_id, :groups, null: true
      t.index %i[group_id person_id], unique: true
      t.index %i[group_id member_group_id], unique: true
      t.check_constraint "(person_id is null) <> (member_group_id is null)", name: "group_members_one"
    end

    table :places do |t|
      t.string :name, null: false, limit: 120
      t.string :kind, **WORD, default: "room"
      t.integer :seats
      t.json :equipment, null: false
      t.string :time_zone, null: false, limit: 60
      t.json :opening_hours # null: always open
      t.string :whereabouts, limit: 250
      key t, :looked_after_by_id, :people, null: true
      t.integer :lock_version, null: false, default: 0
      t.index :name, unique: true
      t.check_constraint "kind in ('room', 'equipment')", name: "places_kind"
    end

    table :calendars do |t|
      key t, :person_id, :people, null: true
      key t, :place_id, :places, null: true
      t.string :name, null: false, limit: 120
      t.string :kind, **WORD
      t.string :address, limit: 1000
      t.string :etag, limit: 500
      t.string :last_modified, limit: 100
      t.datetime :checked_at
      t.datetime :succeeded_at
      t.datetime :due_at
      t.string :last_error, limit: 500
      t.json :warnings
      t.integer :events
      t.datetime :expanded_until
      t.binary :source, size: :medium
      t.string :state, **WORD, default: "still"
      t.binary :incoming, size: :medium
      t.integer :done, null: false, default: 0
      t.integer :total
      t.string :claim, **KEY
      t.datetime :leased_until
      t.integer :lock_version, null: false, default: 0
      t.index %i[state leased_until]
      t.index :due_at
      t.check_constraint "(person_id is null) <> (place_id is null)", name: "calendars_owner"
      t.check_constraint "kind in ('file', 'address', 'by_hand')", name: "calendars_kind"
      t.check_constraint "state in ('still', 'waiting', 'running', 'failed', 'cancelled')", name: "calendars_state"
    end

    table :busy_entries do |t|
      key t, :calendar_id, :calendars
      t.string :title, limit: 200
      t.datetime :local_start, null: false, precision: 0
      t.datetime :local_end, null: false, precision: 0
      t.boolean :tentative, null: false, default: false
      t.string :rule, limit: 4000
      t.check_constraint "local_start < local_end", name: "busy_entries_span"
    end

    # Computed from calendars and read by every search: whole minutes since 1970 UTC, so that nothing is converted.
    create_table :busy_spans, primary_key: %i[calendar_id starts_min ends_min kind title_key] do |t|
      t.string :calendar_id, **KEY, null: false
      t.string :owner_id, **KEY, null: false
      t.integer :starts_min, null: false
      t.integer :ends_min, null: false
      t.integer :kind, limit: 1, null: false
      t.integer :title_key, null: false, limit: 8
      t.string :title, limit: 200
      t.foreign_key :calendars
      t.index %i[owner_id starts_min ends_min kind], name: "busy_spans_of_owner"
      t.check_constraint "starts_min < ends_min", name: "busy_spans_span"
    end

    table :holds do |t|
      t.string :title, null: false, limit: 160
      key t, :kept_by_id, :people
      key t, :series_id, :series, null: true
      key t, :place_id, :places, null: true
      t.datetime :starts_at, null: false
      t.datetime :ends_at, null: false
      t.integer :before_min, null: false, default: 0
      t.integer :after_min, null: false, default: 0
      t.datetime :expires_at, null: false
      t.datetime :released_at
      t.integer :lock_version, null: false, default: 0
      t.index %i[starts_at ends_at]
      t.check_constraint "starts_at < ends_at", name: "holds_span"
    end

    table :hold_people do |t|
      key t, :hold_id, :holds, index: false
      key t, :person_id, :people
      t.string :role, **WORD, default: "required"
      t.index %i[hold_id person_id], unique: true
    end

    change_table :series do |t|
      key t, :place_id, :places, null: true
      t.integer :before_min, null: false, default: 0
      t.integer :after_min, null: false, default: 0
    end

    # A place is held by at most one row for a meeting; that no two overlap is kept under the lock of the place.
    table :place_bookings do |t|
      key t, :place_id, :places, index: false
      key t, :meeting_id, :meetings, index: {unique: true}
      t.datetime :starts_at, null: false
      t.datetime :ends_at, null: false
      t.index %i[place_id starts_at]
      t.check_constraint "starts_at < ends_at", name: "place_bookings_span"
    end

    change_table :meetings do |t|
      t.datetime :moved_at # when its time was changed for this meeting alone
      t.integer :time_sequence, null: false, default: 0
    end
    add_index :meetings, :ends_at
  end

  def down
    remove_index :meetings, :ends_at
    remove_columns :meetings, :moved_at, :time_sequence
    drop_table :place_bookings
    remove_foreign_key :series, column: :place_id
    remove_columns :series, :place_id, :before_min, :after_min
    %i[hold_people holds busy_spans busy_entries calendars places group_members groups days_off].each { |name| drop_table name }
    remove_columns :people, :working_hours, :region, :holidays_off, :feed_serial, :feeds_open
  end

  private

  def table(name)
    create_table name, id: false do |t|
      t.string :id, **KEY, primary_key: true, null: false
      yield t
      t.timestamps
    end
  end

  def key(table, name, to, null: false, index: true)
    table.string name, **KEY, null: null
    table.foreign_key to, column: name
    table.index name, **((index == true) ? {} : index) if index
  end
end
