# The online side of a meeting; options of a series and, where they differ, of one meeting; who comes instead of whom;
# meetings organised elsewhere; text messages; and what mail services report of each mail.
class AddOptions < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def up
    change_table :series do |t|
      t.string :call_url, limit: 500
      t.string :call_passcode, limit: 60
      t.string :call_dial_in, limit: 200
      t.boolean :pass_on, null: false, default: false # may somebody send another instead
      t.boolean :answers_asked, null: false, default: true
      t.boolean :sign_up, null: false, default: false
      t.integer :sign_up_limit # nil: as many as sign up
    end

    # Nil: as the series has it.
    change_table :meetings do |t|
      t.boolean :pass_on
      t.boolean :answers_asked
      t.boolean :sign_up
      t.integer :sign_up_limit
      t.integer :remind_min
      t.integer :sign_ups, null: false, default: 0 # grows with each sign-up and withdrawal, so that they wait for each other
    end
    add_column :replies, :signed_up_at, :datetime

    change_table :people do |t|
      t.string :phone, limit: 20, collation: "ascii_bin"
      t.boolean :text_reminders, null: false, default: false
      t.integer :remind_min # nil: as the series has it
    end

    change_table :mails do |t|
      t.string :way, limit: 10, collation: "ascii_bin", null: false, default: "mail"
      t.string :message_id, limit: 190, collation: "ascii_bin"
      t.datetime :delivered_at
      t.index :message_id
    end

    create_outside_meetings
    create_substitutes
  end

  def down
    drop_table :substitutes
    remove_foreign_key :series, :outside_meetings
    remove_column :series, :outside_meeting_id
    drop_table :outside_meetings
    remove_columns :mails, :way, :message_id, :delivered_at
    remove_columns :people, :phone, :text_reminders, :remind_min
    remove_column :replies, :signed_up_at
    remove_columns :meetings, :pass_on, :answers_asked, :sign_up, :sign_up_limit, :remind_min, :sign_ups
    remove_columns :series, :call_url, :call_passcode, :call_dial_in, :pass_on, :answers_asked, :sign_up, :sign_up_limit
  end

  private

  # One for each person asked. `messages` all that has come, to be played again with each that comes.
  def create_outside_meetings
    create_table :outside_meetings, id: false do |t|
      t.string :id, **KEY, primary_key: true, null: false
      key t, :person_id, :people
      t.string :uid_digest, limit: 64, collation: "ascii_bin", null: false
      t.string :uid, limit: 500, null: false
      t.string :title, limit: 200, null: false
      t.string :organizer_email, limit: 190, null: false
      t.string :organizer_name, limit: 120
      t.string :location, limit: 500
      t.string :sentence, limit: 500
      t.string :answer, limit: 20, collation: "ascii_bin", null: false, default: "none"
      t.string :note, limit: 500
      t.boolean :called_off, null: false, default: false
      t.datetime :next_starts_at
      t.datetime :last_ends_at
      t.datetime :changed_at, null: false
      t.text :messages, size: :long, null: false
      t.integer :lock_version, null: false, default: 0
      t.timestamps
      t.index %i[person_id uid_digest], unique: true
    end
    add_column :series, :outside_meeting_id, :string, **KEY
    add_foreign_key :series, :outside_meetings
    remove_check_constraint :calendars, name: "calendars_kind"
    add_check_constraint :calendars, "kind in ('file','address','by_hand','by_mail')", name: "calendars_kind"
  end

  def create_substitutes
    create_table :substitutes, id: false do |t|
      t.string :id, **KEY, primary_key: true, null: false
      key t, :meeting_id, :meetings
      key t, :person_id, :people
      key t, :instead_of_id, :people
      t.string :told_digest, limit: 64, collation: "ascii_bin"
      t.timestamps
      t.index %i[meeting_id instead_of_id], unique: true
    end
  end

  def key(table, name, to)
    table.string name, **KEY, null: false
    table.foreign_key to, column: name
    table.index name
  end
end
