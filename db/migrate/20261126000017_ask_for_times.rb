# Asking for times: a poll with its candidate times, who is asked, what they answer and what they suggest.
class AskForTimes < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze
  WORD = {limit: 20, collation: "ascii_bin"}.freeze

  def change
    polls
    candidates
    people
    # A date of a series that its rule does not give.
    add_column :meetings, :added, :boolean, null: false, default: false
    add_foreign_key :time_polls, :people, column: :kept_by_id
    add_foreign_key :poll_candidates, :time_polls
    add_foreign_key :poll_people, :time_polls
    add_foreign_key :poll_people, :people
    add_foreign_key :poll_answers, :poll_candidates
    add_foreign_key :poll_answers, :poll_people
    add_foreign_key :poll_suggestions, :poll_people
    add_check_constraint :time_polls, "state in ('open','settled','closed')", name: "time_polls_state"
    add_check_constraint :time_polls, "shows in ('all','tally','nobody')", name: "time_polls_shows"
    add_check_constraint :time_polls, "tells in ('each','all','end')", name: "time_polls_tells"
    add_check_constraint :time_polls, "outcome in ('meeting','series','move','within')", name: "time_polls_outcome"
    add_check_constraint :poll_people, "role in ('required','optional','informed')", name: "poll_people_role"
    add_check_constraint :poll_answers, "answer in ('suits','possible','cannot')", name: "poll_answers_answer"
  end

  def polls
    create_table :time_polls, id: {type: :string, **KEY} do |t|
      t.string :title, limit: 160, null: false
      t.text :words
      t.string :kept_by_id, null: false, **KEY
      t.integer :length_min, null: false
      t.string :time_zone, limit: 60, null: false
      t.datetime :closes_at, null: false
      t.datetime :remind_at
      t.string :state, null: false, default: "open", **WORD
      t.string :shows, null: false, default: "tally", **WORD
      t.string :tells, null: false, default: "all", **WORD
      t.boolean :by_itself, null: false, default: false
      t.string :outcome, null: false, default: "meeting", **WORD
      t.string :series_id, **KEY
      t.string :meeting_id, **KEY
      t.string :rule, limit: 4000
      t.string :place_id, **KEY
      t.string :place, limit: 250
      t.string :call_kind, null: false, default: "none", **WORD
      t.boolean :holds_times, null: false, default: true
      t.boolean :shared, null: false, default: false
      t.boolean :shares_names, null: false, default: false
      t.integer :shared_serial, null: false, default: 0
      t.string :settled_candidate_id, **KEY
      t.datetime :settled_at
      t.boolean :settled_told, null: false, default: false
      t.string :made_series_id, **KEY
      t.string :made_meeting_id, **KEY
      t.datetime :moved_from
      t.string :closed_word, limit: 500
      t.datetime :seen_at
      t.datetime :result_told_at
      t.integer :lock_version, null: false, default: 0
      t.timestamps
      t.index %i[kept_by_id state]
      t.index %i[state closes_at]
      t.index :series_id
    end
  end

  def candidates
    create_table :poll_candidates, id: {type: :string, **KEY} do |t|
      t.string :time_poll_id, null: false, **KEY
      t.datetime :starts_at, null: false
      t.string :hold_id, **KEY
      t.text :busy_then, size: :long, collation: "utf8mb4_bin"
      t.timestamps
      t.index %i[time_poll_id starts_at], unique: true
    end
  end

  def people
    create_table :poll_people, id: {type: :string, **KEY} do |t|
      t.string :time_poll_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.string :role, null: false, **WORD
      t.string :way, null: false, default: "link", **WORD
      t.datetime :asked_at
      t.datetime :reminded_at
      t.datetime :answered_at
      t.boolean :none_suits, null: false, default: false
      t.boolean :accepts, null: false, default: false
      t.string :comment, limit: 500
      t.timestamps
      t.index %i[time_poll_id person_id], unique: true
      t.index :person_id
    end
    create_table :poll_answers, id: {type: :string, **KEY} do |t|
      t.string :poll_candidate_id, null: false, **KEY
      t.string :poll_person_id, null: false, **KEY
      t.string :answer, null: false, **WORD
      t.timestamps
      t.index %i[poll_person_id poll_candidate_id], unique: true
      t.index :poll_candidate_id
    end
    create_table :poll_suggestions, id: {type: :string, **KEY} do |t|
      t.string :poll_person_id, null: false, **KEY
      t.datetime :starts_at, null: false
      t.timestamps
      t.index :poll_person_id
    end
  end
end
