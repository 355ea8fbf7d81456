# A single meeting may be held elsewhere than its series; and those called off with all later ones come back with them.
class LetAMeetingDiffer < ActiveRecord::Migration[7.2]
  def change
    change_table :meetings, bulk: true do |t|
      t.boolean :called_off_with_run, null: false, default: false
      t.boolean :own_where, null: false, default: false
      t.string :place_id, limit: 36, collation: "ascii_bin"
      t.string :place, limit: 250
      t.string :call_url, limit: 500
      t.string :call_passcode, limit: 60
      t.string :call_dial_in, limit: 200
    end
    add_foreign_key :meetings, :places
    # A series may hold equipment besides its room, so a meeting has a booking for each place.
    create_table :series_places, id: {type: :string, limit: 36, collation: "ascii_bin"} do |t|
      t.string :series_id, limit: 36, null: false, collation: "ascii_bin"
      t.string :place_id, limit: 36, null: false, collation: "ascii_bin"
      t.timestamps
      t.index %i[series_id place_id], unique: true
      t.index :place_id
    end
    add_foreign_key :series_places, :series
    add_foreign_key :series_places, :places
    add_index :place_bookings, %i[meeting_id place_id], unique: true
    remove_index :place_bookings, name: "index_place_bookings_on_meeting_id", column: :meeting_id, unique: true
    # A place that is no more stays where it was held.
    add_column :places, :removed_at, :datetime
    # Somebody may be asked to one meeting besides everybody else, instead of nobody.
    change_column_null :substitutes, :instead_of_id, true
    # Since when a busy time is known here: what was known before somebody accepted does not clash since.
    add_column :busy_spans, :known_at, :datetime
    # What somebody wrote in a mail that is kept aside.
    add_column :incoming_mails, :words, :text
    # Whether a keeper wants mail about what they keep themselves.
    add_column :people, :mail_own, :boolean, null: false, default: false
    reversible do |direction|
      # What a mail says, not only what it does to a calendar.
      direction.up do
        execute "update mails set kind = if(before_sending_id is null, 'invited', 'changed') where kind = 'request'"
        execute "update mails set kind = 'taken_off' where kind = 'cancel'"
      end
      direction.down do
        execute "update mails set kind = 'request' where kind in ('invited', 'changed', 'brought_back')"
        execute "update mails set kind = 'cancel' where kind in ('taken_off', 'called_off')"
      end
    end
  end
end
