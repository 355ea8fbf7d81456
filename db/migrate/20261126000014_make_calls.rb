# Calls of our own: which a series or meeting has, how its door is, each call as the service was told of it, and what
# the service reports.
class MakeCalls < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  # Keys the service makes.
  THEIRS = {limit: 64, collation: "ascii_bin"}.freeze

  def up
    series
    meetings
    add_column :attendances, :from_call, :boolean, null: false, default: false
    calls
    reports
    kinds_of_changes(*KINDS, "call")
  end

  def down
    execute "delete from changes where kind = 'call'"
    kinds_of_changes(*KINDS)
    drop_table :call_reports
    drop_table :calls
    remove_column :attendances, :from_call
    remove_check_constraint :meetings, name: "meetings_call_kind"
    remove_column :meetings, :call_kind
    %w[series_call_kind series_door].each { |name| remove_check_constraint :series, name: name }
    SERIES.each { |name| remove_column :series, name }
  end

  SERIES = %i[
    call_kind call_renewal call_dial door_policy door_opens_min door_stays_min door_quiet door_presents door_records
  ].freeze

  KINDS = %w[line people topics left_over papers sheet].freeze

  private

  def kinds_of_changes(*kinds)
    remove_check_constraint :changes, name: "changes_kind"
    add_check_constraint :changes, "kind in (#{kinds.map { |kind| quote(kind) }.join(",")})", name: "changes_kind"
  end

  def series
    word = {limit: 20, null: false, collation: "ascii_bin"}
    add_column :series, :call_kind, :string, default: "none", **word
    add_column :series, :call_renewal, :integer, null: false, default: 0
    add_column :series, :call_dial, :boolean, null: false, default: false
    add_column :series, :door_policy, :string, default: "members", **word
    add_column :series, :door_opens_min, :integer, null: false, default: 15
    add_column :series, :door_stays_min, :integer, null: false, default: 30
    add_column :series, :door_quiet, :boolean, null: false, default: false
    add_column :series, :door_presents, :string, default: "everybody", **word
    add_column :series, :door_records, :boolean, null: false, default: false
    execute "update series set call_kind = 'own' where call_url is not null or call_dial_in is not null"
    add_check_constraint :series, "call_kind in ('none','own','standing','fresh')", name: "series_call_kind"
    add_check_constraint :series, "door_policy in ('everybody','members','host','known')", name: "series_door"
  end

  def meetings
    add_column :meetings, :call_kind, :string, limit: 20, null: false, default: "none", collation: "ascii_bin"
    execute "update meetings set call_kind = 'own' where call_url is not null or call_dial_in is not null"
    add_check_constraint :meetings, "call_kind in ('none','own','fresh')", name: "meetings_call_kind"
  end

  def calls
    create_table :calls, id: {type: :string, **KEY} do |t|
      t.string :series_id, null: false, **KEY
      # The one it is for; nil: a standing call
      t.string :meeting_id, **KEY
      t.string :state, limit: 20, null: false, default: "wanted", collation: "ascii_bin"
      t.string :passcode, limit: 20, null: false, collation: "ascii_bin"
      t.integer :renewal, null: false, default: 0
      t.string :url, limit: 500
      t.string :number, limit: 40
      t.string :pin, limit: 20
      # Of what the service was told last
      t.string :told_digest, limit: 64, collation: "ascii_bin"
      t.integer :reports_read, null: false, default: 0
      t.datetime :made_at
      t.datetime :used_at
      t.datetime :due_at, null: false
      t.string :claim, **KEY
      t.datetime :leased_until
      t.integer :tries, null: false, default: 0
      t.integer :attempts, null: false, default: 0
      t.string :last_error, limit: 500
      t.timestamps
      t.index %i[series_id meeting_id]
      t.index %i[state due_at]
      t.index :claim
    end
    add_check_constraint :calls, "state in ('wanted','made','ended','set_aside')", name: "calls_state"
  end

  def reports
    create_table :call_reports, id: {type: :string, **THEIRS} do |t|
      t.string :call_id, null: false, **KEY
      t.string :meeting_id, **KEY
      t.string :kind, limit: 20, null: false, collation: "ascii_bin"
      t.datetime :at, null: false
      t.string :visit, **THEIRS
      t.string :person_id, **KEY
      t.string :name, limit: 120
      t.datetime :came_at
      t.datetime :created_at, null: false
      t.index %i[meeting_id at]
      t.index :call_id
    end
    add_foreign_key :call_reports, :calls, on_delete: :cascade
  end
end
