# Keys are UUIDv7 as text: the browser makes them for what it creates, so that a repeated write is harmless.
# Instants are datetime(6) in UTC, starts on the wall a zone-less datetime beside a zone, days are dates.
class LayFoundation < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  WORD = {limit: 20, collation: "ascii_bin", null: false}.freeze

  def up
    table :people do |t|
      t.string :name, null: false, limit: 120
      t.string :email, null: false, limit: 190
      t.string :time_zone, null: false, limit: 60
      t.string :password_digest, limit: 80
      t.boolean :admin, null: false, default: false
      t.integer :founder, limit: 1 # 1 for the one person who set the application up, else null
      t.integer :lock_version, null: false, default: 0
      t.index :email, unique: true
      t.index :founder, unique: true
    end

    table :series do |t|
      t.string :title, null: false, limit: 160
      t.text :purpose
      t.string :place, limit: 250
      key t, :keeper_id, :people
      key t, :chair_id, :people
      t.string :time_zone, null: false, limit: 60
      t.datetime :local_start, null: false, precision: 0
      t.integer :length_min, null: false
      t.string :rule, limit: 4000
      t.integer :left_over_min, null: false, default: 5
      t.integer :quorum
      t.integer :sequence, null: false, default: 0
      t.integer :told_sequence
      t.datetime :told_at
      t.datetime :laid_out_until
      t.integer :lock_version, null: false, default: 0
      t.check_constraint "length_min > 0", name: "series_length"
    end

    table :series_members do |t|
      key t, :series_id, :series
      key t, :person_id, :people
      t.string :role, **WORD
      t.index %i[series_id person_id], unique: true
      t.check_constraint "role in ('required', 'optional', 'informed')", name: "series_members_role"
    end

    table :meetings do |t|
      key t, :series_id, :series
      t.datetime :original_start, null: false, precision: 0
      t.datetime :starts_at, null: false
      t.datetime :ends_at, null: false
      t.string :state, **WORD, default: "planned"
      t.string :called_off_reason, limit: 500
      t.datetime :begun_at
      t.datetime :closed_at
      t.datetime :issued_at
      t.string :present_topic_id, **KEY
      t.datetime :present_since
      t.integer :left_over_used_s, null: false, default: 0
      t.integer :lock_version, null: false, default: 0
      t.index %i[series_id original_start], unique: true
      t.index %i[series_id starts_at]
      t.index %i[starts_at state]
      t.check_constraint "starts_at < ends_at", name: "meetings_span"
      t.check_constraint "state in ('planned', 'in_session', 'closed', 'issued', 'called_off')", name: "meetings_state"
    end

    table :topics do |t|
      key t, :series_id, :series
      key t, :meeting_id, :meetings
      key t, :settled_at_meeting_id, :meetings, null: true
      t.string :title, null: false, limit: 200
      t.string :purpose, **WORD, default: "discussion"
      key t, :presenter_id, :people, null: true
      key t, :brought_by_id, :people
      t.integer :length_min, null: false
      t.integer :position, null: false, default: 0
      t.integer :lock_version, null: false, default: 0
      t.check_constraint "length_min >= 0", name: "topics_length"
    end

    table :topic_visits do |t|
      key t, :topic_id, :topics
      key t, :meeting_id, :meetings
      t.integer :used_s, null: false, default: 0
      t.boolean :put_off, null: false, default: false
      t.index %i[topic_id meeting_id], unique: true
    end

    table :lines do |t|
      key t, :meeting_id, :meetings
      key t, :topic_id, :topics, null: true
      t.string :kind, **WORD
      t.text :text, null: false
      key t, :author_id, :people
      t.datetime :written_at, null: false
      t.integer :lock_version, null: false, default: 0
      t.index %i[meeting_id written_at]
      t.check_constraint "kind in ('note', 'decision', 'action')", name: "lines_kind"
    end

    table :action_items do |t|
      key t, :series_id, :series
      key t, :raised_at_meeting_id, :meetings, null: true
      key t, :line_id, :lines, null: true, index: {unique: true}
      t.text :text, null: false
      t.date :due_on
      t.string :state, **WORD, default: "open"
      t.string :reason, limit: 500
      t.datetime :raised_at, null: false
      t.datetime :closed_at
      key t, :closed_at_meeting_id, :meetings, null: true
      t.integer :lock_version, null: false, default: 0
      t.index %i[series_id state]
      t.check_constraint "(state = 'open') = (closed_at is null)", name: "action_items_closed"
    end

    table :action_owners do |t|
      key t, :action_item_id, :action_items
      key t, :person_id, :people
      t.index %i[action_item_id person_id], unique: true
    end

    table :action_changes do |t|
      key t, :action_item_id, :action_items
      key t, :person_id, :people
      key t, :meeting_id, :meetings, null: true
      t.string :change_kind, **WORD
      t.string :word, limit: 500
      t.datetime :changed_at, null: false
    end

    table :action_reviews do |t|
      key t, :action_item_id, :action_items
      key t, :meeting_id, :meetings
      key t, :person_id, :people
      t.string :verdict, **WORD
      t.string :word, limit: 500
      t.datetime :reviewed_at, null: false
      t.index %i[action_item_id meeting_id], unique: true
    end

    table :attendances do |t|
      key t, :meeting_id, :meetings
      key t, :person_id, :people
      t.string :state, **WORD
      t.datetime :happened_at
      t.index %i[meeting_id person_id], unique: true
    end

    table :replies do |t|
      key t, :meeting_id, :meetings
      key t, :person_id, :people
      t.string :answer, **WORD
      t.string :note, limit: 500
      t.string :way, **WORD, default: "here"
      t.datetime :answered_at, null: false
      t.index %i[meeting_id person_id], unique: true
    end

    table :minutes_versions do |t|
      key t, :meeting_id, :meetings
      t.integer :number, null: false
      key t, :issued_by_id, :people
      t.datetime :issued_at, null: false
      t.json :content, null: false
      t.index %i[meeting_id number], unique: true
    end

    table :sendings do |t|
      key t, :series_id, :series
      key t, :sent_by_id, :people
      t.integer :sequence, null: false
      t.integer :recipients, null: false
      t.text :note
      t.datetime :sent_at, null: false
    end

    table :mails do |t|
      t.string :reason, null: false, limit: 190, collation: "ascii_bin"
      key t, :series_id, :series, null: true
      t.string :recipient, null: false, limit: 190
      t.string :subject, null: false, limit: 250
      t.binary :source, null: false, size: :medium
      t.string :state, **WORD, default: "waiting"
      t.integer :attempts, null: false, default: 0
      t.datetime :due_at, null: false
      t.string :claim, **KEY
      t.datetime :leased_until
      t.string :last_error, limit: 500
      t.datetime :sent_at
      t.index :reason, unique: true
      t.index %i[state due_at]
      t.index :claim
    end

    table :changes do |t|
      key t, :meeting_id, :meetings
      t.datetime :changed_at, null: false
      t.index %i[changed_at id]
    end
  end

  def down
    %i[changes mails sendings minutes_versions replies attendances action_reviews action_changes action_owners action_items
      lines topic_visits topics meetings series_members series people].each { |name| drop_table name }
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
    table.index name, **((index == true) ? {} : index)
  end
end
