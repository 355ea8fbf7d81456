# Who was told what, answers that come by mail, other times offered, and what came in.
class AddTelling < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  WORD = {limit: 20, collation: "ascii_bin", null: false}.freeze

  def up
    change_table :people do |t|
      t.boolean :guest, null: false, default: false # invited by address alone
    end

    change_table :series do |t|
      t.datetime :ended_from, precision: 0 # on the wall: all meetings from then on are called off
    end

    table :series_groups do |t|
      key t, :series_id, :series, index: false
      key t, :group_id, :groups
      t.string :role, **WORD
      t.index %i[series_id group_id], unique: true
    end

    change_table :series_members do |t|
      key t, :via_group_id, :groups, null: true
      t.string :run_answer, **WORD, default: "none" # to the whole run
      t.string :run_note, limit: 500
    end

    change_table :replies do |t|
      t.datetime :stamp # of the message the answer came in
      t.string :entered_by_id, **KEY
      t.foreign_key :people, column: :entered_by_id
    end

    change_table :sendings do |t|
      t.json :content # null: from before this was kept
    end

    # What each person was last told.
    table :tellings do |t|
      key t, :series_id, :series, index: false
      key t, :person_id, :people
      key t, :sending_id, :sendings
      t.string :kind, **WORD
      t.string :digest, null: false, limit: 64, collation: "ascii_bin"
      t.integer :sequence, null: false
      t.datetime :answered_stamp # of their last answer to the whole run
      t.index %i[series_id person_id], unique: true
      t.check_constraint "kind in ('request', 'cancel')", name: "tellings_kind"
    end

    # A mail of a sending is composed when it is handed over.
    change_column_null :mails, :source, true
    change_table :mails do |t|
      key t, :sending_id, :sendings, null: true
      key t, :person_id, :people, null: true
      key t, :before_sending_id, :sendings, null: true
      t.string :kind, limit: 20, collation: "ascii_bin"
      t.string :role, limit: 20, collation: "ascii_bin"
    end

    # Another time somebody offers.
    table :counters do |t|
      key t, :series_id, :series
      key t, :meeting_id, :meetings
      key t, :person_id, :people
      t.datetime :starts_at, null: false
      t.datetime :ends_at, null: false
      t.string :note, limit: 500
      t.string :state, **WORD, default: "open"
      t.index %i[meeting_id state]
      t.check_constraint "starts_at < ends_at", name: "counters_span"
      t.check_constraint "state in ('open', 'taken', 'declined')", name: "counters_state"
    end

    # Mail that came in, kept whatever it is.
    table :incoming_mails do |t|
      t.string :digest, null: false, limit: 64, collation: "ascii_bin"
      t.string :sender, null: false, limit: 190
      t.string :subject, limit: 250
      t.binary :source, null: false, size: :medium
      t.string :state, **WORD, default: "waiting"
      t.string :outcome, limit: 40, collation: "ascii_bin"
      t.string :remark, limit: 500
      key t, :series_id, :series, null: true
      t.datetime :received_at, null: false
      t.string :claim, **KEY
      t.datetime :leased_until
      t.index :digest, unique: true
      t.index %i[state leased_until]
      t.check_constraint "state in ('waiting', 'taken', 'aside', 'unreadable', 'seen')", name: "incoming_mails_state"
    end

    # What happened to a series and its meetings, by whom.
    table :events do |t|
      key t, :series_id, :series, index: false
      key t, :meeting_id, :meetings, null: true
      key t, :person_id, :people, null: true
      t.string :kind, **WORD
      t.string :words, null: false, limit: 1000
      t.datetime :happened_at, null: false
      t.index %i[series_id happened_at]
    end
  end

  def down
    %i[events incoming_mails counters tellings series_groups].each { |name| drop_table name }
    %i[sending_id person_id before_sending_id].each { |name| remove_foreign_key :mails, column: name }
    remove_columns :mails, :sending_id, :person_id, :before_sending_id, :kind, :role
    remove_columns :sendings, :content
    remove_foreign_key :replies, column: :entered_by_id
    remove_columns :replies, :stamp, :entered_by_id
    remove_foreign_key :series_members, column: :via_group_id
    remove_columns :series_members, :via_group_id, :run_answer, :run_note
    remove_columns :series, :ended_from
    remove_columns :people, :guest
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
