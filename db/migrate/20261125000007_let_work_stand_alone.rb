# Background work counts how often it was begun, what nobody can do is set aside, addresses are compared exactly, and
# columns take what the limits allow.
class LetWorkStandAlone < ActiveRecord::Migration[7.2]
  QUEUES = %i[mails incoming_mails calendars].freeze
  ADDRESSES = {people: :email, incoming_mails: :sender, mails: :recipient, outside_meetings: :organizer_email}.freeze

  def up
    QUEUES.each { |table| add_column table, :tries, :integer, null: false, default: 0 }
    ADDRESSES.each { |table, column| change_column table, column, :string, limit: 254, null: false, collation: "utf8mb4_bin" }
    %i[source incoming].each { |column| change_column :calendars, column, :binary, limit: 4_294_967_295 }
    add_column :outside_meetings, :dates, :text, size: :long, collation: "utf8mb4_bin"
    remove_check_constraint :incoming_mails, name: "incoming_mails_state"
    add_check_constraint :incoming_mails, "`state` in ('waiting','taken','aside','unreadable','set_aside','seen')", name: "incoming_mails_state"
    remove_check_constraint :calendars, name: "calendars_state"
    add_check_constraint :calendars, "`state` in ('still','waiting','running','failed','cancelled','set_aside')", name: "calendars_state"
    make_faults
    add_index :incoming_mails, %i[outcome received_at]
    add_index :mails, %i[recipient created_at]
  end

  def down
    remove_index :mails, %i[recipient created_at]
    remove_index :incoming_mails, %i[outcome received_at]
    drop_table :faults
    remove_check_constraint :incoming_mails, name: "incoming_mails_state"
    add_check_constraint :incoming_mails, "`state` in ('waiting','taken','aside','unreadable','seen')", name: "incoming_mails_state"
    remove_column :outside_meetings, :dates
    QUEUES.each { |table| remove_column table, :tries }
  end

  private

  # What goes wrong in work that is looked for rather than queued, by step and what it was about.
  def make_faults
    create_table :faults, id: {type: :string, limit: 36, collation: "ascii_bin"} do |t|
      t.string :step, limit: 40, null: false, collation: "ascii_bin"
      t.string :subject_id, limit: 36, null: false, default: "", collation: "ascii_bin"
      t.integer :tries, null: false, default: 0
      t.string :error, limit: 500, null: false
      t.datetime :failed_at, null: false
      t.timestamps
      t.index %i[step subject_id], unique: true
    end
  end
end
