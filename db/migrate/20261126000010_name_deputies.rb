# Who may write and hold meetings for the keeper: of a whole series, or of one meeting.
class NameDeputies < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    create_table :deputies, id: {type: :string, **KEY} do |t|
      t.string :series_id, null: false, **KEY
      t.string :meeting_id, **KEY
      t.string :person_id, null: false, **KEY
      t.timestamps
      t.index %i[series_id person_id]
      t.index %i[meeting_id person_id], unique: true
      t.index :person_id
      t.foreign_key :series
      t.foreign_key :meetings
      t.foreign_key :people
    end
  end
end
