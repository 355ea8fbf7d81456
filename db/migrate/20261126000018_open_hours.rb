# Open hours of hosts, in which others book times by themselves; and what they have booked.
class OpenHours < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  WORD = {limit: 20, collation: "ascii_bin"}.freeze
  JSON_TEXT = {size: :long, collation: "utf8mb4_bin"}.freeze

  def change
    hours
    hosts
    bookings
    add_foreign_key :open_hours, :people, column: :kept_by_id
    add_foreign_key :open_hours_hosts, :open_hours, column: :open_hours_id
    add_foreign_key :open_hours_hosts, :people
    add_foreign_key :bookings, :open_hours, column: :open_hours_id
    add_foreign_key :bookings, :people
    add_check_constraint :open_hours, "mode in ('together','turns','chosen')", name: "open_hours_mode"
    add_check_constraint :open_hours, "call_kind in ('none','fresh')", name: "open_hours_call_kind"
    add_check_constraint :bookings, "state in ('held','booked','given_back','expired')", name: "bookings_state"
    add_check_constraint :bookings, "starts_at < ends_at", name: "bookings_span"
  end

  def hours
    create_table :open_hours, id: {type: :string, **KEY} do |t|
      t.string :title, limit: 160, null: false
      t.text :words
      t.text :after_words
      t.string :kept_by_id, null: false, **KEY
      t.string :time_zone, limit: 60, null: false
      t.string :mode, null: false, default: "together", **WORD
      t.text :lengths, **JSON_TEXT, null: false
      t.integer :step_min, null: false, default: 30
      t.integer :before_min, null: false, default: 0
      t.integer :after_min, null: false, default: 0
      t.integer :notice_min, null: false, default: 1_440
      t.integer :days_ahead
      t.date :from_on
      t.date :until_on
      t.integer :most_per_day
      t.integer :most_per_week
      t.integer :most_per_visitor
      t.text :questions, **JSON_TEXT, null: false
      t.text :only_from, **JSON_TEXT, null: false
      t.text :never_from, **JSON_TEXT, null: false
      t.text :always_ids, **JSON_TEXT, null: false
      t.text :calendars_out, **JSON_TEXT, null: false
      t.text :frames, **JSON_TEXT, null: false
      t.string :place_id, **KEY
      t.string :place, limit: 250
      t.string :call_kind, null: false, default: "none", **WORD
      t.string :like_id, **KEY
      t.boolean :listed, null: false, default: false
      t.boolean :tentative_free, null: false, default: false
      t.boolean :proof, null: false, default: false
      t.boolean :paused, null: false, default: false
      t.integer :serial, null: false, default: 0
      t.datetime :removed_at
      t.integer :lock_version, null: false, default: 0
      t.timestamps
      t.index :kept_by_id
    end
  end

  def hosts
    create_table :open_hours_hosts, id: {type: :string, **KEY} do |t|
      t.string :open_hours_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.integer :position, null: false
      t.text :week, **JSON_TEXT
      t.timestamps
      t.index %i[open_hours_id person_id], unique: true
      t.index :person_id
    end
    # Written by whoever books a host, so that no two do at once.
    create_table :host_turns, id: false do |t|
      t.string :person_id, null: false, **KEY, primary_key: true
      t.integer :number, null: false, default: 0
    end
  end

  def bookings
    create_table :bookings, id: {type: :string, **KEY} do |t|
      t.string :open_hours_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.string :name, limit: 120, null: false
      t.string :time_zone, limit: 60, null: false
      t.datetime :starts_at, null: false
      t.datetime :ends_at, null: false
      t.text :host_ids, **JSON_TEXT, null: false
      t.text :answers, **JSON_TEXT, null: false
      t.string :state, null: false, default: "booked", **WORD
      t.string :series_id, **KEY
      t.string :meeting_id, **KEY
      t.datetime :expires_at
      t.integer :moves, null: false, default: 0
      t.timestamps
      t.index %i[open_hours_id starts_at]
      t.index %i[state expires_at]
      t.index :person_id
      t.index :meeting_id
    end
  end
end
