# Minutes that were issued are corrected by another version, with a reason, and approved at a later meeting.
class CorrectAndApproveMinutes < ActiveRecord::Migration[7.2]
  def change
    add_column :meetings, :correcting_reason, :string, limit: 500
    change_table :minutes_versions do |t|
      t.string :reason, limit: 500
      t.string :approved_at_meeting_id, limit: 36, collation: "ascii_bin"
      t.string :approved_by_id, limit: 36, collation: "ascii_bin"
      t.datetime :approved_at
      t.foreign_key :meetings, column: :approved_at_meeting_id
      t.foreign_key :people, column: :approved_by_id
    end
  end
end
