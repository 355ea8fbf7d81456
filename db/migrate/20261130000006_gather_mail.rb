# How somebody wants mail that is not urgent, and which mails wait for the morning.
class GatherMail < ActiveRecord::Migration[7.2]
  def up
    add_column :people, :mail_digest, :boolean, null: false, default: false
    add_column :people, :mail_without, :text, size: :long, collation: "utf8mb4_bin"
    add_column :mails, :digest, :boolean, null: false, default: false
    add_index :mails, %i[recipient digest state]
  end

  def down
    remove_index :mails, %i[recipient digest state]
    remove_column :mails, :digest
    remove_columns :people, :mail_digest, :mail_without
  end
end
